/** The main job, end to end in the real interface: take in, see, rewrite, keep, hand off. */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import {
  allPages,
  DEMO,
  filesOf,
  go,
  openDemo,
  openDesk,
  openShelf,
  saved,
  takeInZip,
  watchConsole,
  zipOf,
} from './helpers.ts'

const TITLE = 'Lamp-lighting evenings: "oil", wicks & a match'
const PATH = 'evenings/lamp-lighting.html'

/** The width that Chromium lays the text out to, in the shipped font. */
const drawnWidth = (page: Page, text: string, size: number) =>
  page.evaluate(
    async ({ text, size }) => {
      await document.fonts.load(`${size}px Arimo`, text)
      await document.fonts.ready
      const span = Object.assign(document.createElement('span'), { className: 'result', textContent: text })
      span.style.cssText = `position:absolute;white-space:pre;font-size:${size}px`
      document.body.append(span)
      const { width } = span.getBoundingClientRect()
      span.remove()
      return width
    },
    { text, size },
  )

function quillMarks(zip: Buffer, path: string): string[] {
  const file = join(mkdtempSync(join(tmpdir(), 'kq-')), 'site.zip')
  writeFileSync(file, zip)
  let json: string
  try {
    json = execFileSync('npm', ['run', '-s', 'quill', '--', 'audit', file, '--format', 'json'], {
      encoding: 'utf8',
      maxBuffer: 1 << 26,
      stdio: ['ignore', 'pipe', 'ignore'],
    })
  } catch (error) {
    // Exit 1: done, and blockers remain.
    json = (error as { stdout: string }).stdout
  }
  const report = JSON.parse(json) as { pages: { path: string; marks: { rule: string }[] }[] }
  return report.pages.find((p) => p.path === path)!.marks.map((m) => m.rule)
}

test('a ZIP is taken in, a title typed, kept, undone, typed again, and handed off with only those bytes changed', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const input = filesOf(DEMO)
  await openDemo(page)
  await openShelf(page)
  await takeInZip(page, 'own-site.zip', zipOf(Object.fromEntries(input)))
  await allPages(page)
  const site = /sites\/([^/]+)/.exec(page.url())![1]!

  await page.getByLabel('Find in the ledger').fill(PATH)
  await page.locator(`[data-path="${PATH}"]`).getByRole('button').click()
  await expect(page.locator('[data-rule="title-cut"]')).toBeVisible()
  const title = page.getByTestId('title')
  await title.fill('')
  await title.pressSequentially(TITLE)
  await expect(title).toHaveValue(TITLE)
  await expect(page.locator('[data-rule="title-cut"]')).toHaveCount(0)

  const drawn = await drawnWidth(page, TITLE, 20)
  await expect
    .poll(async () => Math.abs(Number(await page.getByTestId('title-px').getAttribute('data-px')) - drawn))
    .toBeLessThanOrEqual(0.1)

  await saved(page)
  await page.reload()
  await expect(page.getByTestId('title')).toHaveValue(TITLE)
  await page.locator('body').press('Control+z')
  await expect(page.getByTestId('title')).toHaveValue(/^Lamp-Lighting Evenings on Farrowskerry/)
  await expect(page.locator('[data-rule="title-cut"]')).toBeVisible()
  await page.locator('body').press('Control+Shift+z')
  await expect(page.getByTestId('title')).toHaveValue(TITLE)
  await saved(page)

  await go(page, `/sites/${site}/hand-off`)
  await expect(page.locator(`[data-path="${PATH}"]`)).toContainText(TITLE)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Whole site as ZIP' }).click(),
  ])
  const zip = readFileSync(await download.path())
  const output = unzipSync(new Uint8Array(zip))
  expect(Object.keys(output).sort()).toEqual([...input.keys(), 'changes.csv'].sort())
  for (const [path, bytes] of input)
    if (path !== PATH) expect(Buffer.compare(Buffer.from(output[path]!), Buffer.from(bytes)), path).toBe(0)
  const before = Buffer.from(input.get(PATH)!).toString('latin1')
  const after = Buffer.from(output[PATH]!).toString('latin1')
  expect(after).toBe(
    before.replace(
      /<title>[^<]*<\/title>/,
      '<title>Lamp-lighting evenings: "oil", wicks &amp; a match</title>',
    ),
  )
  expect(quillMarks(zip, PATH)).not.toContain('title-cut')
  expect(quillMarks(zipOf(Object.fromEntries(input)), PATH)).toContain('title-cut')
  expect(problems).toEqual([])
})

test('the thinnest thread: pasted source, a title typed into the result, the file with only that changed', async ({
  page,
}) => {
  await openShelf(page)
  await page.getByRole('button', { name: /Paste a page/ }).click()
  const source =
    '<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>Shop</title>\n</head>\n<body><h1>Shop</h1></body></html>\n'
  await page.getByLabel('The page’s source').fill(source)
  await page.getByRole('button', { name: 'Take the page in' }).click()
  await page.getByRole('button', { name: /^Take in 1 page/ }).click()
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.locator('[data-rule="title-short"]')).toBeVisible()
  await page.getByTestId('title').fill('Charts, lamps and a fog horn, posted from the island')
  await expect(page.locator('[data-rule="title-short"]')).toHaveCount(0)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download this page' }).click(),
  ])
  expect(readFileSync(await download.path(), 'utf8')).toBe(
    source.replace('Shop</title>', 'Charts, lamps and a fog horn, posted from the island</title>'),
  )
})

test('killed in the middle of typing, at most the last 300 ms are gone', async ({ page, context }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'contact.html')
  const description = page.getByTestId('description')
  await description.focus()
  await description.press('End')
  const typed: { at: number; value: string }[] = []
  for (const letter of ' Or write to us, and the boat will bring it over on Tuesday') {
    await page.keyboard.type(letter)
    typed.push({ at: Date.now(), value: await description.inputValue() })
    await page.waitForTimeout(25)
  }
  const killed = Date.now()
  // A crash, not a close: no pagehide, no chance to write.
  const cdp = await context.newCDPSession(page)
  void cdp.send('Page.crash').catch(() => {})
  await page.waitForEvent('crash')
  const again = await context.newPage()
  await openDesk(again, site, 'contact.html')
  const kept = await again.getByTestId('description').inputValue()
  const mustBeThere = typed.findLast((t) => killed - t.at > 300)!
  expect(kept.startsWith(mustBeThere.value)).toBe(true)
})

test('closing the tab loses nothing, and two tabs do not overwrite each other', async ({ page, context }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'contact.html')
  const other = await context.newPage()
  await openDesk(other, site, 'contact.html')
  await page.getByTestId('title').fill('Telephone, post and radio of the lighthouse')
  await other
    .getByTestId('description')
    .fill('Ring the quay office between nine and four, write, or call on channel 12 when you are at sea.')
  await saved(page)
  await saved(other)
  await expect(other.getByTestId('title')).toHaveValue('Telephone, post and radio of the lighthouse')
  await expect(page.getByTestId('description')).toHaveValue(/channel 12/)
  await page.getByTestId('title').pressSequentially('!')
  await page.close({ runBeforeUnload: false })
  await other.reload()
  await expect(other.getByTestId('title')).toHaveValue('Telephone, post and radio of the lighthouse!')
  await expect(other.getByTestId('description')).toHaveValue(/channel 12/)
})

test('a project file brings the site back with all its work, undo included', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'shop/index.html')
  await page.getByTestId('title').fill('The lighthouse shop: charts, lamps and a horn')
  await saved(page)
  await page.getByRole('button', { name: 'Approve' }).click()
  await expect(page.getByTestId('state')).toContainText('approved')
  await saved(page)
  await openShelf(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Project file' }).click(),
  ])
  const buffer = readFileSync(await download.path())
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'farrowskerry-light.keen-quill.zip', mimeType: 'application/zip', buffer })
  await page.getByRole('button', { name: /^Take in 45 pages/ }).click()
  await allPages(page)
  const copy = /sites\/([^/]+)/.exec(page.url())![1]!
  expect(copy).not.toBe(site)
  await openDesk(page, copy, 'shop/index.html')
  await expect(page.getByTestId('title')).toHaveValue('The lighthouse shop: charts, lamps and a horn')
  await expect(page.getByTestId('state')).toContainText('approved')
  await page.locator('body').press('Control+z')
  await expect(page.getByTestId('state')).toContainText('drafted')
  await page.locator('body').press('Control+z')
  await expect(page.getByTestId('title')).toHaveValue('Shop')
})

test('a store that is slow takes no typed character back', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'contact.html')
  const title = page.getByTestId('title')
  await title.fill('')
  // Another connection holds the tables, as a busy disk would; what is typed meanwhile waits in a row.
  const held = page.evaluate(
    (ms) =>
      new Promise<void>((resolve) => {
        const request = indexedDB.open('keen-quill')
        request.onsuccess = () => {
          const transaction = request.result.transaction(['decisions', 'log'], 'readwrite')
          const until = performance.now() + ms
          const hold = () => {
            if (performance.now() < until) transaction.objectStore('decisions').count().onsuccess = hold
          }
          hold()
          transaction.oncomplete = () => {
            request.result.close()
            resolve()
          }
        }
      }),
    1500,
  )
  const words = 'Call the lighthouse keepers on the radio or by telephone'
  await title.pressSequentially(words, { delay: 45 })
  await held
  await title.pressSequentially(' at noon', { delay: 20 })
  await expect(title).toHaveValue(`${words} at noon`)
  await saved(page)
  await page.reload()
  await expect(page.getByTestId('title')).toHaveValue(`${words} at noon`)
})
