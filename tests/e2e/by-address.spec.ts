/** Pages by address, from sheets, and taken in again: offline, from the invented web. */
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { read, utils } from '@e965/xlsx'
import { allPages, checkAccess, go, openDemo, openDesk, openShelf, saved, watchConsole } from './helpers.ts'

async function askFor(page: Page, address: string, way: RegExp): Promise<void> {
  await openShelf(page)
  await page.getByLabel('By its address').fill(address)
  await page.getByRole('button', { name: 'Look at it' }).click()
  await page.getByRole('radio', { name: way }).check()
}
const chooseWeb = async (page: Page, state: 'now' | 'later') => {
  await openShelf(page)
  await page.getByRole('combobox', { name: /Invented sites/ }).click()
  await page.getByRole('option', { name: state === 'now' ? /are now/ : /weeks later/ }).click()
  await expect(page.getByRole('combobox', { name: /Invented sites/ })).toContainText(
    state === 'now' ? 'are now' : 'weeks later',
  )
}
const siteId = (page: Page) => /sites\/([^/]+)/.exec(page.url())![1]!
const row = (page: Page, path: string) =>
  page
    .getByTestId('ledger')
    .locator('[data-path]')
    .filter({ has: page.getByText(path, { exact: true }) })

test('a site is taken in from its sitemap: the plan says what is left out, and each page is seen as what it is', async ({
  page,
}) => {
  const problems = watchConsole(page)
  await askFor(page, 'tidewatch.example', /sitemap/)
  await checkAccess(page, 'what is asked', 'day')
  await page.getByRole('button', { name: 'See what would be taken in' }).click()
  await expect(page.getByRole('tab', { name: '10 pages would be taken in' })).toBeVisible()
  await page.getByRole('tab', { name: '3 left out' }).click()
  const left = page.getByRole('list', { name: 'Addresses that are left out' })
  for (const [address, why] of [
    ['/staff/rota/', 'robots.txt asks not to fetch it'],
    ['/brochure.pdf', 'not a page'],
    ['boats.elsewhere.example', 'on another site'],
  ])
    await expect(left.getByRole('listitem').filter({ hasText: address! })).toContainText(why!)
  await checkAccess(page, 'the plan')
  // The plan is changed, and changed back, without anything being fetched.
  await page.getByLabel('Leave out').fill('/tours*')
  await page.getByLabel('What you call the site').click()
  await expect(page.getByRole('tab', { name: '7 pages would be taken in' })).toBeVisible()
  await page.getByLabel('Leave out').fill('')
  await page.getByLabel('What you call the site').fill('Tidewatch')
  await page.getByRole('button', { name: 'Take in 10 pages' }).click()
  await expect(page.getByRole('heading', { name: '9 pages taken in' })).toBeVisible()
  await expect(page.getByRole('heading', { name: '3 left out, 1 address redirected' })).toBeVisible()
  await checkAccess(page, 'what came', 'day')
  await page.getByRole('button', { name: 'Open the ledger' }).click()
  await allPages(page)
  const site = siteId(page)

  // The charset of the header, which the page itself does not declare.
  await openDesk(page, site, 'https://tidewatch.example/history/', 'head')
  const served = page.locator('[data-part=served]')
  await expect(served).toContainText('charset windows-1252')
  await openDesk(page, site, 'https://tidewatch.example/history/')
  await expect(page.getByTestId('description')).toHaveValue(/^The café on the point/)
  // X-Robots-Tag: a mark once the page has a keyword.
  await openDesk(page, site, 'https://tidewatch.example/prices/')
  await page.getByLabel('Primary keyword').fill('boat prices')
  await expect(page.getByTestId('margin')).toContainText('X-Robots-Tag')
  await openDesk(page, site, 'https://tidewatch.example/prices/', 'head')
  await expect(served).toContainText('noindex')
  // The redirect, and who still links to the old address.
  await openDesk(page, site, 'https://tidewatch.example/tours/', 'head')
  await expect(served).toContainText('https://tidewatch.example/tours.html (301)')
  await expect(page.getByTestId('margin')).toContainText('One page still links to the old address')
  await checkAccess(page, 'what the server said', 'day')
  // The error.
  await openDesk(page, site, 'https://tidewatch.example/book/')
  await expect(page.getByTestId('margin')).toContainText('The server answered 500')
  expect(problems).toEqual([])
})

test('a site is taken in by following its links', async ({ page }) => {
  await askFor(page, 'https://tidewatch.example/', /links lead to/)
  await page.getByRole('button', { name: 'See what would be taken in' }).click()
  await page.getByRole('button', { name: 'Follow the links' }).click()
  const came = page.getByRole('list', { name: 'Addresses without a page of their own' })
  await expect(came.getByRole('listitem').filter({ hasText: '/staff/rota/' })).toContainText('robots.txt')
  await page.getByRole('button', { name: 'Open the ledger' }).click()
  await allPages(page)
  // The dawn boat is in no sitemap, and one link leads to it.
  await expect(row(page, '/tours/dawn/')).toBeVisible()
})

test('what came is kept or not when fetching is cancelled', async ({ page }) => {
  const begin = async () => {
    await askFor(page, 'tidewatch.example', /sitemap/)
    await page.getByRole('button', { name: 'See what would be taken in' }).click()
    // The timetable is held back, so that there is something to cancel.
    await page.route('**/fetching', async (route) => {
      if (route.request().postData()?.includes('timetable')) return
      await route.continue()
    })
    await page.getByRole('button', { name: /^Take in/ }).click()
    await expect(page.getByText(/8 of 10 pages fetched|9 of 10 pages fetched/)).toBeVisible()
    await page.getByRole('button', { name: 'Cancel' }).click()
    await expect(page.getByRole('alertdialog', { name: 'Cancelled' })).toBeVisible()
    await page.unroute('**/fetching')
  }
  await begin()
  await page.getByRole('button', { name: 'Keep nothing' }).click()
  await openShelf(page)
  await expect(page.getByRole('link', { name: 'tidewatch.example' })).toHaveCount(0)
  await begin()
  await page.getByRole('button', { name: 'Keep what came' }).click()
  await page.getByRole('button', { name: 'Open the ledger' }).click()
  await allPages(page)
})

test('an address that cannot be fetched is said with what to do; the way back to the shelf is open', async ({
  page,
}) => {
  for (const [address, why] of [
    ['http://127.0.0.1/', /address within a network/],
    ['nowhere.example', /No site has this name/],
    ['not an address', /not a web address/],
  ] as const) {
    await askFor(page, address, /sitemap/)
    await page.getByRole('button', { name: 'See what would be taken in' }).click()
    await expect(page.getByRole('alert')).toContainText(why)
  }
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
})

test('one page is looked at by its address, from the palette', async ({ page }) => {
  await openShelf(page)
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Go to' })).toBeFocused()
  await page.keyboard.type('tidewatch.example/caves/')
  await expect(
    page.getByRole('option', { name: 'Look at the page tidewatch.example/caves/', exact: true }),
  ).toHaveAttribute('data-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-testid=desk][data-ready=true]')).toBeVisible()
  await expect(page.getByTestId('title')).toHaveValue('Sea Caves at Tidewatch Point: a Map of All 11')
  await page.getByTestId('title').fill('Sea caves')
  await saved(page)
  await openShelf(page)
  await expect(page.getByRole('link', { name: 'Loose pages' })).toBeVisible()
})

test('the palette stays open, with what was typed, while the shelf behind it is still opening', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const request = navigator.locks.request.bind(navigator.locks) as (...asked: unknown[]) => Promise<unknown>
    const held = new Promise<void>((release) => Object.assign(globalThis, { openTheShelf: release }))
    navigator.locks.request = async (...asked: unknown[]) => {
      if (asked[0] === 'keen-quill-intake') await held
      return request(...asked)
    }
  })
  await openShelf(page)
  await expect(page.getByText('Opening the sites kept in this browser …')).toBeVisible()
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Go to' })).toBeFocused()
  await page.keyboard.type('tidewatch.example/caves/')
  await page.evaluate(() => (globalThis as unknown as { openTheShelf(): void }).openTheShelf())
  await expect(page.getByRole('option', { name: /^Look at the page/ })).toHaveAttribute(
    'data-selected',
    'true',
  )
  await expect(page.getByRole('combobox', { name: 'Go to' })).toHaveValue('tidewatch.example/caves/')
})

test('another origin cannot drive the fetcher, nor a name that is led here', async ({
  page,
  request,
  baseURL,
}) => {
  await openShelf(page)
  const body = { address: 'https://tidewatch.example/', as: 'page', web: 'first' }
  const ask = (headers: Record<string, string>) => request.post('/fetching', { data: body, headers })
  expect((await ask({})).status()).toBe(403)
  expect((await ask({ origin: 'https://evil.example', 'sec-fetch-site': 'cross-site' })).status()).toBe(403)
  expect((await ask({ origin: baseURL!, 'sec-fetch-site': 'same-site' })).status()).toBe(403)
  expect((await ask({ origin: 'null', 'sec-fetch-site': 'same-origin' })).status()).toBe(403)
  expect((await ask({ origin: baseURL!, 'sec-fetch-site': 'same-origin' })).status()).toBe(200)
  expect((await request.get('/', { headers: { host: 'rebound.example' } })).status()).toBe(421)
  // What is no question is answered, and fetches nothing.
  const nonsense = await request.post('/fetching', {
    data: { as: 'page' },
    headers: { origin: baseURL!, 'sec-fetch-site': 'same-origin' },
  })
  expect(nonsense.status()).toBe(400)
})

test('a consultant’s sheet: matched, taken, taken edited, declined, undone, answered', async ({ page }) => {
  const site = await openDemo(page)
  await go(page, `/sites/${site}/suggestions`)
  const csv = [
    'Page URL;Current title;Suggested title;Suggested meta description;Primary keyword;Comment',
    'https://www.farrowskerry.example/shop;Shop;Lighthouse Shop: Charts, Lamps and Lanterns;;lighthouse shop;says nothing',
    '/courses/knots.html;A Day;Knot Course for Beginners;;;',
    'farrowskerry.example/stay/;;A Very Long Title for the Keeper’s Lighthouse Cottage That Will Be Cut in Every Result | Farrowskerry;;;',
    'https://farrowskerry.example/storys/;;Stories;;;',
  ].join('\r\n')
  await page
    .getByTestId('suggestions-input')
    .setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
  await expect(page.getByTestId('suggestions-matched')).toContainText('3 rows matched a page; 1 matched none')
  await expect(page.getByTestId('suggestions-matched')).toContainText(
    'Nearest: https://farrowskerry.example/stories/',
  )
  await checkAccess(page, 'the sheet’s columns', 'day')
  await page.getByRole('button', { name: 'Look at suggestions for 3 pages' }).click()
  const card = (path: string) => page.locator(`[data-testid=suggestion][data-path="${path}"]`)
  await expect(card('stay/index.html')).toContainText('is cut')
  await expect(card('shop/index.html')).toContainText('left: Short title')
  await expect(card('courses/knots.html')).toContainText('left: The keyword is not in the title')
  await checkAccess(page, 'suggestions')
  // By keyboard: decline with a word, then take what is left.
  await card('stay/index.html').focus()
  await page.keyboard.press('d')
  await expect(card('stay/index.html').getByLabel('Why it is declined')).toBeFocused()
  await page.keyboard.type('too long')
  await page.keyboard.press('Enter')
  await expect(card('stay/index.html')).toHaveCount(0)
  await card('courses/knots.html').getByLabel('Title, as suggested').fill('A Knot Course for Beginners')
  await card('courses/knots.html').getByRole('button', { name: 'Take as edited' }).click()
  await expect(card('courses/knots.html')).toHaveCount(0)
  await page.getByRole('button', { name: 'Take all 1 that fit' }).click()
  await expect(page.getByText('Every suggestion is answered.')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(card('shop/index.html')).toBeVisible()
  await page.keyboard.press('Control+Shift+z')
  await expect(page.getByText('Every suggestion is answered.')).toBeVisible()

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Answers as XLSX' }).click(),
  ])
  const book = read(readFileSync(await download.path()))
  const rows = utils.sheet_to_json<Record<string, string>>(book.Sheets[book.SheetNames[0]!]!)
  expect(rows.map((r) => [r.field, r.answer, r['wording now'], r.why])).toEqual(
    expect.arrayContaining([
      ['title', 'taken', 'Lighthouse Shop: Charts, Lamps and Lanterns', ''],
      ['keyword', 'taken', 'lighthouse shop', ''],
      ['title', 'edited', 'A Knot Course for Beginners', ''],
      ['title', 'declined', 'Stay in the Keeper’s Lighthouse Cottage | Farrowskerry', 'too long'],
    ]),
  )
  // What was not taken is a take, with where it came from.
  await openDesk(page, site, 'stay/index.html')
  await page.getByTestId('drawer-takes').getByRole('button', { name: /Takes/ }).click()
  const takes = page.getByTestId('takes-title').getByTestId('take')
  await expect(takes.filter({ hasText: 'A Very Long Title' })).toContainText('list.csv, ')
})

test('pages from a sheet are edited, handed off as a worksheet, and become whole with their drafts when they are fetched', async ({
  page,
}) => {
  await openShelf(page)
  const csv =
    'URL,Title,Words\nhttps://tidewatch.example/tours/,"Lighthouse Boat Tours: 3 Routes, Every Hour | Tidewatch",120\nhttps://tidewatch.example/questions/,Questions,90\nhttps://tidewatch.example/members/,For members,10\n'
  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'pages.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
  await checkAccess(page, 'a sheet of pages', 'day')
  await page.getByRole('button', { name: 'Take in 3 rows' }).click()
  await allPages(page)
  const site = siteId(page)
  await openDesk(page, site, 'https://tidewatch.example/tours/')
  await page.getByTestId('title').fill('Lighthouse Tours by Boat from Tidewatch Quay, Every Hour')
  await saved(page)
  await openDesk(page, site, 'https://tidewatch.example/members/')
  await page.getByTestId('title').fill('For members: <b>the rota</b>')
  await saved(page)
  // Nothing that the sheet does not say is judged.
  await expect(page.getByTestId('margin')).not.toContainText('heading')

  await go(page, `/sites/${site}/hand-off`)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Worksheet' }).click(),
  ])
  const html = readFileSync(await download.path(), 'utf8')
  const sheet = await page.context().newPage()
  await sheet.route('https://worksheet.example/', (route) =>
    route.fulfill({ contentType: 'text/html', body: html }),
  )
  await sheet.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await sheet.goto('https://worksheet.example/')
  await expect(sheet.getByText('0 of 2 done')).toBeVisible()
  await checkAccess(sheet, 'the worksheet', 'day')
  const title = sheet.locator('.field').filter({ hasText: 'the rota' })
  await title.getByRole('button', { name: 'Copy Title' }).click()
  await expect(title.getByRole('button')).toHaveText('Copied')
  expect(await sheet.evaluate(() => navigator.clipboard.readText())).toBe('For members: <b>the rota</b>')
  await title.getByRole('checkbox').check()
  await sheet.reload()
  await expect(sheet.getByText('1 of 2 done')).toBeVisible()
  await sheet.getByLabel('Show only what is left').check()
  await expect(title).toBeHidden()
  await sheet.close()

  await go(page, `/intake?again=${site}`)
  await page.getByRole('button', { name: 'See what would be taken in' }).click()
  await page.getByRole('button', { name: /^Take in 10/ }).click()
  await expect(page.getByRole('heading', { name: 'Taken in again' })).toBeVisible()
  await expect(page.getByRole('region', { name: /Still to do/ })).toContainText('Lighthouse Tours by Boat')
  // The page that was not fetched is not gone: the sheet alone knows it.
  await expect(page.getByRole('region', { name: /Still to do/ })).toContainText('the rota')
  await openDesk(page, siteId(page), 'https://tidewatch.example/tours/', 'outline')
  await expect(page.getByText('The two lights').first()).toBeVisible()
})

test('taken in again: every class is seen, nothing is lost, undone and done again', async ({ page }) => {
  await chooseWeb(page, 'now')
  const site = await openDemo(page)
  const draft = async (path: string, title: string) => {
    await openDesk(page, site, path)
    await page.getByTestId('title').fill(title)
    await saved(page)
  }
  await draft('courses/knots.html', 'Knot Course for Beginners: Eight Knots in a Day')
  await draft('crossings/timetable.html', 'Crossing Timetable: Boats to Farrowskerry')
  await draft('jobs/warden.html', 'Lighthouse Warden Wanted, April to September')
  await draft('evenings/page2.html', 'Evenings of the Years Before')
  await draft('visit/with_children.html', 'A Lighthouse with Children: a Day in the Petrel')
  await chooseWeb(page, 'later')
  await go(page, `/sites/${site}/ledger`)
  await page.getByRole('link', { name: 'Take in again' }).click()
  await checkAccess(page, 'what is taken in again', 'day')
  await page.getByRole('button', { name: 'See what would be taken in' }).click()
  await page.getByRole('button', { name: /^Take in/ }).click()
  await expect(page.getByRole('heading', { name: 'Taken in again' })).toBeVisible()
  const part = (name: RegExp) => page.getByRole('region', { name })
  await expect(part(/In place/)).toContainText('Knot Course for Beginners')
  await expect(part(/Still to do/)).toContainText('Lighthouse Warden Wanted')
  await expect(part(/Still to do/)).toContainText('/visit/with-children.html')
  await expect(part(/In conflict/)).toContainText('Crossing Timetable 2027')
  await expect(part(/Pages that moved/)).toContainText('/visit/with_children.html')
  await expect(part(/Pages that are gone/)).toContainText('/evenings/page2.html')
  await checkAccess(page, 'taken in again')
  await part(/In conflict/)
    .getByRole('button', { name: 'Keep ours' })
    .click()
  await expect(part(/In conflict/)).toHaveCount(0)
  await expect(part(/Still to do/)).toContainText('Crossing Timetable: Boats to Farrowskerry')
  await saved(page)

  await page.getByRole('button', { name: 'Undo taking in again' }).click()
  await page.getByRole('button', { name: 'Go back' }).click()
  await expect(page.getByText('Taking in again was undone.')).toBeVisible()
  await openDesk(page, site, 'evenings/page2.html')
  await expect(page.getByTestId('title')).toHaveValue('Evenings of the Years Before')
  await go(page, `/sites/${site}/ledger`)
  await page.getByRole('button', { name: 'Do it again' }).click()
  await expect(part(/Still to do/)).toContainText('Crossing Timetable: Boats to Farrowskerry')
  await expect(part(/In place/)).toContainText('Knot Course for Beginners')
  // An older address of the site leads to where it is now.
  await go(page, `/sites/${site}/hand-off`)
  await allPages(page)
})
