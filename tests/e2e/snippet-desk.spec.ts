/** The snippet desk: takes, casing, what is shown instead, slugs and what follows, patterns, house style, approval. */
import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import Papa from 'papaparse'
import { crawl } from '../fixtures/crawl.ts'
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
  wholeZip,
  zipOf,
} from './helpers.ts'

const BASE = 'https://farrowskerry.example/'

test('takes: kept, drafted from the page, compared and chosen; what stood before is not lost', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'shop/index.html')
  await page.getByTestId('drawer-takes').getByRole('button', { name: /Takes/ }).click()
  const takes = page.getByTestId('takes-title').getByTestId('take')
  await expect(takes.filter({ hasText: 'from the keyword and the H1' })).toContainText('px, fits')
  await expect(takes.filter({ hasText: 'from the H1' }).first()).toBeVisible()
  // The drafted take's own marks are shown: the H1 alone is short.
  await expect(takes.filter({ hasText: /^The shop/ })).toContainText('Short title')

  const wording = 'The Lighthouse Shop: Charts, Lamps and a Fog Horn'
  await page.getByTestId('title').fill(wording)
  await page.keyboard.press('Alt+t')
  await expect(takes.filter({ hasText: wording })).toContainText('in the result')
  await takes
    .filter({ hasText: 'from the keyword and the H1' })
    .getByRole('button', { name: 'Choose' })
    .click()
  await expect(page.getByTestId('title')).toHaveValue(/^Lighthouse shop: The shop/)
  await takes.filter({ hasText: wording }).getByRole('button', { name: 'Choose' }).click()
  await expect(page.getByTestId('title')).toHaveValue(wording)
  await saved(page)
  await go(page, `/sites/${site}/ledger`)
  await page.getByLabel('Find in the ledger').fill('shop/index')
  await expect(page.locator('[data-path="shop/index.html"] [data-cell="0-6"]')).toContainText('2')
  expect(problems).toEqual([])
})

test('casing by one key, what is shown instead by one key, bold words and furniture from the page alone', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'crossings/index.html')
  await expect(page.getByTestId('fall-back')).toBeVisible()
  await expect(page.getByTestId('narrow-description')).toContainText('The boat to Farrowskerry is the Petrel')
  await page.keyboard.press('Alt+i')
  await expect(page.getByTestId('description')).toHaveValue(/^The boat to Farrowskerry is the Petrel/)
  await expect(page.locator('[data-rule="description-missing"]')).toHaveCount(0)
  await page.keyboard.press('Alt+c')
  // A name by the page's own text keeps its capital.
  await expect(page.getByTestId('title')).toHaveValue('Boat to Farrowskerry: Crossings, March to October')

  await openDesk(page, site, 'stories/fresnel-lens.html')
  await expect(page.getByTestId('title-px')).toBeVisible()
  await expect(page.locator('.typed b')).toHaveText(
    ['Fresnel Lens', 'Fresnel lens'].flatMap((t) => t.split(' ')),
  )
  await page.getByLabel('fresnel lens', { exact: true }).uncheck()
  await expect(page.locator('.typed b')).toHaveCount(0)
  const px = async () => Number(await page.getByTestId('description-px').getAttribute('data-px'))
  const before = await px()
  await page.getByLabel('date', { exact: true }).check()
  await expect(page.getByTestId('narrow-description')).toContainText('Sep 14, 2026 — A Fresnel')
  expect(await px()).toBeGreaterThan(before + 80)
  await page.getByLabel('breadcrumb').check()
  await expect(page.locator('[data-anchor="trail"]')).toHaveText(
    'farrowskerry.example › Stories › Fresnel lens',
  )
  await expect(page.getByLabel('price')).toHaveCount(0)
})

test('shared wordings follow when asked, into the file', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'index.html')
  await page
    .getByTestId('drawer-carriers')
    .getByRole('button', { name: /shared/ })
    .click()
  await page.getByRole('button', { name: 'Follow the title' }).click()
  await page.getByTestId('title').fill('Climb an Island Lighthouse {year}')
  await page.getByTestId('title').blur()
  await expect(page.getByTestId('title')).toHaveValue(/^Climb an Island Lighthouse 20\d\d$/)
  await saved(page)
  const zip = await wholeZip(page, site)
  const html = Buffer.from(zip['index.html']!).toString()
  const year = new Date().getUTCFullYear()
  expect(html).toContain(`<title>Climb an Island Lighthouse ${year}</title>`)
  expect(html).toContain(`property="og:title" content="Climb an Island Lighthouse ${year}"`)
  expect(html).toContain('content="A lighthouse with a kettle."')
})

test('slugs: a page, a folder and a folder’s page alone change their addresses, and nothing breaks', async ({
  page,
}) => {
  const input = Object.fromEntries(filesOf(DEMO))
  const before = await crawl(input, BASE)
  const site = await openDemo(page)

  await openDesk(page, site, 'tours/index.html')
  await page.getByTestId('slug').fill('shop')
  await expect(page.getByTestId('slug-refused')).toContainText('shop/index.html already has this address')
  await page.getByTestId('slug').fill('Guided tours?')
  await page.getByTestId('slug').blur()
  await expect(page.getByTestId('slug')).toHaveValue('Guided-tours')
  await expect(page.locator('[data-rule="slug-uppercase"]')).toBeVisible()
  await page.getByRole('button', { name: 'Use small letters' }).click()
  await expect(page.getByTestId('slug')).toHaveValue('guided-tours')
  await expect(page.getByTestId('slug-effect')).toContainText('4 pages at a new address, 4 redirects')

  await openDesk(page, site, 'stories/fresnel-lens.html')
  await page.keyboard.press('Alt+s')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('how-a-lens-works')
  await page.getByTestId('slug').blur()
  await openDesk(page, site, 'Press/Old Notice.html')
  await page
    .locator('[data-rule="slug-uppercase"]')
    .getByRole('button', { name: 'Use small letters' })
    .click()
  await expect(page.locator('[data-rule="slug-uppercase"]')).toHaveCount(0)
  await openDesk(page, site, 'kitchen/index.htm')
  await page.getByTestId('slug').fill('old-kitchen')
  await page.getByTestId('slug').blur()
  await page.getByLabel(/under it and the folder’s files/).click()
  await expect(page.locator('[data-rule="slug-collision"]')).toHaveCount(0)
  // Changed and changed back: nothing of it stays.
  await openDesk(page, site, 'contact.html')
  await page.getByTestId('slug').fill('ring-us')
  await page.getByTestId('slug').blur()
  await page.getByRole('button', { name: /Original/ }).click()
  await expect(page.getByTestId('slug')).toHaveValue('contact')
  await saved(page)

  const zip = await wholeZip(page, site)
  expect(Object.keys(zip)).toContain('guided-tours/tower.html')
  expect(Object.keys(zip)).not.toContain('tours/tower.html')
  const after = await crawl(zip, BASE)
  // The two broken links that were planted are the only ones, before and after.
  expect(before.broken).toHaveLength(2 + before.broken.filter((b) => /fog-horn\.html$/.test(b)).length)
  expect(after.broken.map((b) => b.replace(/^.* → /, ''))).toEqual(
    before.broken.map((b) => b.replace(/^.* → /, '')),
  )
  // The older kitchen page, which nobody links to, is the only one that a reader cannot come to.
  expect(after.pages.length).toBe(before.pages.length)

  const rows = Papa.parse<{ from: string; to: string; status: string }>(
    Buffer.from(zip['redirects.csv']!).toString(),
    {
      header: true,
      skipEmptyLines: true,
    },
  ).data
  const live = new Set(after.pages.map((p) => BASE + p))
  expect(rows.map((r) => r.from.slice(BASE.length)).sort()).toEqual(
    [
      'Press/Old%20Notice.html',
      'stories/fresnel-lens.html',
      'tours/',
      'tours/lens-room.html',
      'tours/night-walk.html',
      'tours/tower.html',
    ].sort(),
  )
  for (const r of rows) {
    expect(live.has(r.to), r.to).toBe(true)
    expect(live.has(r.from), r.from).toBe(false)
  }
  // Every file that is no page, and every byte that is no address, is as it was.
  for (const path of Object.keys(input).filter((p) => /\.(?:svg|css)$/.test(p)))
    expect(Buffer.compare(Buffer.from(zip[path]!), Buffer.from(input[path]!)), path).toBe(0)
  const contact = Buffer.from(zip['contact.html']!).toString()
  expect(
    contact
      .replaceAll('guided-tours/', 'tours/')
      .replaceAll('press/old-notice.html', 'Press/Old%20Notice.html'),
  ).toBe(Buffer.from(input['contact.html']!).toString())
})

test('a pattern: previewed on all pages, applied, undone in one step, kept in a house style that goes out and comes back', async ({
  page,
}) => {
  const site = await openDemo(page)
  await go(page, `/sites/${site}/house-style`)
  await page.getByLabel('The site’s name in titles').fill('Farrowskerry Light')
  await page.getByLabel('The site’s name in titles').press('Enter')
  await page.getByTestId('pattern').fill('{page} | {site}')
  const preview = page.getByTestId('pattern-preview')
  await expect(preview).toContainText(/4\d titles of 45 pages would change/)
  await expect(preview).toContainText(/\d+ would be cut/)
  const apply = preview.getByRole('button', { name: /^Apply to/ })
  const all = Number(/\d+/.exec((await apply.textContent())!)![0])
  await preview.getByRole('checkbox').first().uncheck()
  await expect(apply).toHaveText(`Apply to ${all - 1} titles`)
  await preview.getByRole('checkbox').first().check()
  await expect(apply).toHaveText(`Apply to ${all} titles`)
  await preview.getByRole('button', { name: /^Apply to/ }).click()
  await expect(page.getByTestId('judging')).toHaveCount(0, { timeout: 60_000 })
  await openDesk(page, site, 'contact.html')
  await expect(page.getByTestId('title')).toHaveValue(
    'Contact the Lighthouse: Telephone, Post and Radio | Farrowskerry Light',
  )
  await expect(page.locator('[data-rule="title-suffix"]')).toHaveCount(0)
  await page.getByTestId('title').focus()
  await expect(page.getByTestId('title')).toHaveValue(
    'Contact the Lighthouse: Telephone, Post and Radio | {site}',
  )
  await page.getByTestId('title').blur()
  await page.locator('body').press('Control+z')
  await expect(page.getByTestId('title')).toHaveValue('Contact the Lighthouse: Telephone, Post and Radio')
  await go(page, `/sites/${site}/ledger`)
  await page.getByLabel('Find in the ledger').fill('| Farrowskerry Light')
  // What the source itself has.
  await expect(page.locator('[role=row][data-path]')).toHaveCount(2)

  await go(page, `/sites/${site}/house-style`)
  await expect(page.getByTestId('pattern')).toHaveValue('')
  await page.getByRole('button', { name: 'Magazine' }).click()
  await expect(page.getByTestId('pattern')).toHaveValue('{page} | {site}')
  await page.getByLabel('Forbidden: never used').fill('boat\nclick here')
  await page.getByLabel('Forbidden: never used').blur()
  await page.getByLabel('Title, at most, characters').fill('50')
  await page.getByLabel('Title, at most, characters').press('Enter')
  await saved(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as JSON' }).click(),
  ])
  const json = readFileSync(await download.path(), 'utf8')
  await openDesk(page, site, 'crossings/index.html')
  await expect(page.locator('[data-rule="title-forbidden"]')).toContainText('“boat”')
  await go(page, `/sites/${site}/house-style`)
  await page.getByRole('button', { name: 'Plain' }).click()
  await expect(page.getByTestId('pattern')).toHaveValue('')
  await page
    .getByTestId('style-input')
    .setInputFiles({ name: 'style.json', mimeType: 'application/json', buffer: Buffer.from(json) })
  await expect(page.getByTestId('pattern')).toHaveValue('{page} | {site}')
  await expect(page.getByLabel('Title, at most, characters')).toHaveValue('50')
  await page.getByTestId('style-input').setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"limits":{"titleLongest":-1}}'),
  })
  await expect(page.getByText(/x\.json: The house style cannot be read/)).toBeVisible()
})

test('the approval file is opened from disk, answered, and read back', async ({ page, context }) => {
  const site = await openDemo(page)
  const hostile = 'Shop <img src=x onerror="document.title=1"> & "lamps"'
  for (const [path, title] of [
    ['shop/index.html', hostile],
    ['contact.html', 'Call the Lighthouse by Telephone or Radio'],
    ['visit/index.html', 'Visit the Lighthouse with a Dog, a Pram or a Friend'],
  ] as const) {
    await openDesk(page, site, path)
    await page.getByTestId('title').fill(title)
    await page.getByTestId('title').blur()
    await saved(page)
  }
  await go(page, `/sites/${site}/hand-off`)
  await page.locator('[data-path]').first().waitFor()
  await page.getByRole('button', { name: 'For approval' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the file for 3 pages' }).click(),
  ])
  const file = test.info().outputPath('for-approval.html')
  await download.saveAs(file)

  const colleague = await context.newPage()
  const asked: string[] = []
  colleague.on('request', (r) => asked.push(r.url()))
  const problems = watchConsole(colleague)
  await colleague.goto(`file://${file}`)
  await expect(colleague.getByRole('heading', { level: 2 })).toHaveCount(3)
  await expect(colleague).toHaveTitle(/^For approval/)
  const section = (path: string) => colleague.locator(`section[data-path="${path}"]`)
  await expect(section('shop/index.html').locator('.title').first()).toHaveText(hostile)
  await section('shop/index.html').getByLabel('Yes').check()
  await section('contact.html').getByLabel('No', { exact: true }).check()
  await section('contact.html').getByLabel('A note').fill('Nobody has a telephone there.')
  await section('visit/index.html').getByLabel('Yes').check()
  await colleague.getByLabel('Your name').fill('Maud')
  const [answers] = await Promise.all([
    colleague.waitForEvent('download'),
    colleague.getByRole('button', { name: 'Save the answers' }).click(),
  ])
  const json = readFileSync(await answers.path())
  expect(problems).toEqual([])
  expect(asked.filter((url) => !/^(?:file|blob|data):/.test(url))).toEqual([])
  await colleague.close()

  // Meanwhile one of them was changed again.
  await openDesk(page, site, 'visit/index.html')
  await page.getByTestId('title').fill('Visit the Lighthouse with a Goat, a Pram or a Friend')
  await page.getByTestId('title').blur()
  await saved(page)
  await go(page, `/sites/${site}/hand-off`)
  await page.locator('[data-path]').first().waitFor()
  await page
    .getByTestId('answers-input')
    .setInputFiles({ name: 'answers.json', mimeType: 'application/json', buffer: json })
  await expect(
    page.getByText(/1 approved, 1 sent back, 0 notes\. Changed since they were asked.*visit\/index\.html/),
  ).toBeVisible()
  await expect(page.locator('[data-path="shop/index.html"]')).toContainText('approved')
  await expect(page.locator('[data-path="contact.html"]')).toContainText('“Nobody has a telephone there.”')
  await openDesk(page, site, 'contact.html')
  await expect(page.getByText(/Sent back:/).locator('..')).toContainText(
    'Nobody has a telephone there. (Maud)',
  )
  await go(page, `/sites/${site}/hand-off`)
  await page
    .getByTestId('answers-input')
    .setInputFiles({ name: 'a.json', mimeType: 'application/json', buffer: Buffer.from('nothing') })
  await expect(page.getByText(/a\.json: The file is not an answer file/)).toBeVisible()
})

test('the picture for approval is a PNG of both widths at twice their size', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'contact.html')
  await page.getByRole('button', { name: 'Picture …' }).click()
  await expect(page.getByTestId('approval-card')).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PNG' }).click(),
  ])
  const png = readFileSync(await download.path())
  expect(png.subarray(1, 4).toString()).toBe('PNG')
  expect(png.readUInt32BE(16)).toBe(1360)
  expect(png.length).toBeGreaterThan(20_000)
})

test('pages are taken in where a site brings its redirects along: chains collapse', async ({ page }) => {
  const html = (title: string, link: string) =>
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title></head><body><h1>${title}</h1><a href="${link}">on</a></body></html>`
  await openShelf(page)
  await takeInZip(
    page,
    'small.zip',
    zipOf({
      'index.html': html('The light', 'now.html'),
      'now.html': html('Now', './'),
      'redirects.csv':
        'from,to,status\r\nhttps://small.example/old.html,https://small.example/now.html,301\r\n',
    }),
    'https://small.example/',
  )
  await allPages(page)
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'now.html')
  await page.getByTestId('slug').fill('later')
  await page.getByTestId('slug').blur()
  await saved(page)
  const zip = await wholeZip(page, site)
  expect(Object.keys(zip).sort()).toEqual(['changes.csv', 'index.html', 'later.html', 'redirects.csv'])
  expect(Buffer.from(zip['redirects.csv']!).toString()).toBe(
    'from,to,status\r\nhttps://small.example/old.html,https://small.example/later.html,301\r\nhttps://small.example/now.html,https://small.example/later.html,301\r\n',
  )
  expect((await crawl(zip, 'https://small.example/')).broken).toEqual([])
})
