/** Without the server, and with a newer one: nothing is lost, and what is said says so. */
import { cpSync, readFileSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { serve } from '../fixtures/chromium.ts'
import { checkAccess, saved, wholeZip, zipOf, takeInZip } from './helpers.ts'

const PORT = 4487
const root = join(import.meta.dirname, '../..')
const NEXT = join(root, 'test-results/next-build')

/** Another build in which one view's file has other words, and with it another name, as a change of its source makes. */
function nextBuild(): void {
  rmSync(NEXT, { recursive: true, force: true })
  cpSync(join(root, 'build'), NEXT, { recursive: true })
  const files = (readdirSync(NEXT, { recursive: true }) as string[])
    .map((name) => join(NEXT, name))
    .filter((file) => statSync(file).isFile())
  for (const file of files.filter((f) => /\.(?:gz|br)$/.test(f))) rmSync(file)
  const texts = files.filter((file) => /\.js$/.test(file))
  const about = files.find((file) => /\/about-[\w-]+\.js$/.test(file))!
  const manifest = files.find((file) => /\/manifest-\w+\.js$/.test(file))!
  writeFileSync(about, readFileSync(about, 'utf8').replaceAll('About Keen Quill', 'About the new Keen Quill'))
  const names = [about, manifest].map((file) => file.slice(file.lastIndexOf('/') + 1))
  for (const file of texts) {
    let text = readFileSync(file, 'utf8')
    for (const name of names) text = text.replaceAll(name, `next-${name}`)
    if (file.endsWith('service-worker.js'))
      text = text.replace(/revision:"[0-9a-f]{16}"\}\)\)/, 'revision:"next"}))')
    // The server draws the same words.
    if (file.includes('/server/')) text = text.replaceAll('About Keen Quill', 'About the new Keen Quill')
    writeFileSync(file, text)
  }
  for (const file of [about, manifest]) renameSync(file, file.replace(/\/([^/]+)$/, '/next-$1'))
}

// They have one port.
test.describe.configure({ mode: 'default' })
test.use({ serviceWorkers: 'allow', baseURL: `http://127.0.0.1:${PORT}` })
test.afterAll(() => rmSync(NEXT, { recursive: true, force: true }))

const isKept = (page: Page) =>
  page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated')
const deskReady = (page: Page) => expect(page.locator('[data-testid=desk][data-ready=true]')).toBeVisible()

test('the server goes, the work goes on, and a newer version takes its place when asked', async ({
  page,
}) => {
  const thrown: string[] = []
  page.on('pageerror', (error) => thrown.push(error.message))
  let server = await serve(PORT, { KEEN_QUILL_DEMO: '1' })
  try {
    await page.goto('/')
    await page.getByRole('link', { name: 'Farrowskerry Light' }).click()
    await expect(page.getByTestId('what-is-left')).toBeVisible()
    await isKept(page)
    const site = /sites\/([^/]+)/.exec(page.url())![1]!
    const desk = `/sites/${site}/desk?page=shop%2Findex.html`
    await page.goto(desk)
    await deskReady(page)
    const title = page.getByTestId('title')
    await title.fill('Charts, lamps and a fog horn')
    await saved(page)
    await expect(page.getByTestId('server-gone')).toHaveCount(0)

    server.stop()
    await page.reload()
    await deskReady(page)
    await expect(title).toHaveValue('Charts, lamps and a fog horn')
    await expect(page.getByTestId('server-gone')).toContainText('Go on as usual: your work is kept')
    await checkAccess(page, 'without the server')
    await title.fill('Charts, lamps, and one fog horn')
    await saved(page)
    await page.reload()
    await deskReady(page)
    await expect(title).toHaveValue('Charts, lamps, and one fog horn')

    // Every view opens, by its address and by its word.
    for (const [section, heading] of [
      ['keywords', 'Keywords'],
      ['structured-data', 'Structured data'],
      ['review', 'Review'],
      ['progress', 'Progress'],
      ['suggestions', 'Suggestions'],
    ] as const) {
      await page.goto(`/sites/${site}/${section}`)
      await expect(page.getByRole('heading', { level: 1 }), section).toContainText(heading)
    }
    await page.goto(`/sites/${site}`)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Ledger')
    await page.keyboard.press('F1')
    await expect(page.getByTestId('guide').locator('p').first()).toBeVisible()
    await page.keyboard.press('Escape')
    // What needs the server says so, and what does not goes on.
    await page.goto(`/sites/${site}/keywords?topic=lighthouse&market=national`)
    await expect(page.getByTestId('demand-failed')).toContainText('server cannot be reached')
    const files = await wholeZip(page, site)
    expect(new TextDecoder().decode(files['shop/index.html'])).toContain(
      '<title>Charts, lamps, and one fog horn</title>',
    )
    await page.goto('/')
    await takeInZip(
      page,
      'lamps.zip',
      zipOf({ 'index.html': '<!doctype html><html lang=en><title>Lamps</title><h1>Lamps</h1>' }),
      'https://lamps.example/',
    )
    await expect(page.getByTestId('what-is-left')).toBeVisible()

    // A newer version: the one that runs stays until it is asked to go.
    nextBuild()
    server = await serve(PORT, { KEEN_QUILL_DEMO: '1', KEEN_QUILL_BUILD: NEXT })
    await page.goto(desk)
    await deskReady(page)
    await expect(page.getByText('A new version of Keen Quill is ready.')).toBeVisible()
    await expect(page.getByTestId('server-gone')).toHaveCount(0)
    const other = await page.context().newPage()
    await other.goto('/about')
    await expect(other.getByRole('heading', { level: 1 })).toHaveText('About Keen Quill')
    await page.getByRole('button', { name: 'Use it now' }).click()
    await expect(page.getByText('Keen Quill is open in 1 more tab. Close it first')).toBeVisible()
    await other.close()
    // Not a keystroke is lost that was made just before.
    await title.fill('Charts, lamps and horns')
    await page.getByRole('button', { name: 'Use it now' }).click()
    await expect(page.getByText('Keen Quill is open in')).toHaveCount(0)
    await deskReady(page)
    await expect(title).toHaveValue('Charts, lamps and horns')
    await page.goto('/about')
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('About the new Keen Quill')
    expect(thrown).toEqual([])
  } finally {
    server.stop()
  }
})

test('files that the system opens with it, and addresses that are shared to it, come to the intake', async ({
  page,
}) => {
  const server = await serve(PORT, { KEEN_QUILL_DEMO: '1' })
  try {
    const manifest = await (await page.request.get('/keen-quill.webmanifest')).json()
    expect(manifest.file_handlers[0].accept['text/html']).toContain('.html')
    expect(manifest.share_target.params).toEqual({ url: 'address', text: 'text', title: 'title' })
    for (const { src, sizes } of manifest.icons) {
      const icon = await page.request.get(src)
      expect(icon.ok(), src).toBe(true)
      if (sizes === 'any') continue
      // PNG, ISO/IEC 15948: the width is the first number of the IHDR chunk.
      expect(`${(await icon.body()).readUInt32BE(16)}x${(await icon.body()).readUInt32BE(20)}`).toBe(sizes)
    }
    await page.addInitScript(() => {
      Object.defineProperty(globalThis, 'launchQueue', {
        value: {
          setConsumer: (consumer: (launch: object) => void) =>
            consumer({
              files: [
                {
                  getFile: async () =>
                    new File(
                      ['<!doctype html><html lang=en><title>A lamp</title><h1>A lamp</h1>'],
                      'lamp.html',
                      {
                        type: 'text/html',
                      },
                    ),
                },
              ],
            }),
        },
      })
    })
    await page.goto('/')
    await expect(page.getByRole('dialog')).toContainText('Take in 1 page')
    await page.goto(
      `/intake?title=A+find&text=${encodeURIComponent('Look: https://tidewatch.example/ is good')}`,
    )
    await expect(page.getByLabel('The address of a page, a site or a sitemap')).toHaveValue(
      'https://tidewatch.example/',
    )
  } finally {
    server.stop()
  }
})
