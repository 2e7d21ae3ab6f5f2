/** Many pages at once, reviewed, handed off, taken in again, and whether it helped. */
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import {
  allPages,
  checkAccess,
  go,
  openDemo,
  openShelf,
  saved,
  takeInZip,
  watchConsole,
  zipOf,
} from './helpers.ts'

const PAGES = 44
const html = (i: number) =>
  `<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>Lamp ${i} by Oldshire</title>\n</head>\n<body><main><h1>Lamp number ${i}</h1><p>This lamp burns for ${i} hours on one filling of oil. It was made on the island by hand.</p></main></body>\n</html>\n`
const files = Object.fromEntries(Array.from({ length: PAGES }, (_, i) => [`shop/lamp-${i}.html`, html(i)]))

async function takeIn(page: Page): Promise<string> {
  await openShelf(page)
  await takeInZip(page, 'lamps.zip', zipOf(files), 'https://lamps.example/')
  await expect(page.getByTestId('what-is-left')).toBeVisible()
  return /sites\/([^/]+)/.exec(page.url())![1]!
}
const change = async (page: Page, kind: string) => {
  await page.getByRole('button', { name: /^Change (?:them|it) …/ }).click()
  await page.getByRole('combobox', { name: 'What' }).click()
  await page.getByRole('option', { name: kind }).click()
}

test('forty pages are replaced and filled, three left out, undone and done; reviewed by keyboard; handed off', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await takeIn(page)
  const left = page.getByTestId('what-is-left')
  await expect(left).toContainText('no description')
  await checkAccess(page, 'what is left')
  await left.getByRole('link', { name: 'no description' }).click()
  const ledger = page.getByTestId('ledger')
  await expect(ledger).toHaveAttribute('aria-rowcount', String(PAGES + 1))
  // Picked by click, by a stretch, by keyboard, and all that are shown.
  await page.getByRole('checkbox', { name: 'Pick shop/lamp-0.html' }).click()
  await page.getByRole('checkbox', { name: 'Pick shop/lamp-10.html' }).click({ modifiers: ['Shift'] })
  await expect(page.getByTestId('picked')).toContainText('3 pages picked')
  await page.locator('[data-cell="0-1"]').focus()
  await page.keyboard.press('Control+a')
  await expect(page.getByTestId('picked')).toContainText('44 pages picked')
  await page.keyboard.press('Space')
  await expect(page.getByTestId('picked')).toContainText('43 pages picked')
  await page.keyboard.press('Space')

  await page.getByRole('button', { name: 'Change them …' }).click()
  const step = page.getByTestId('change-pages')
  await step.getByLabel('Replace').fill('Oldshire')
  await step.getByLabel('with', { exact: true }).fill('Newlight')
  await expect(page.getByTestId('change-pages-figures')).toContainText('44 pages would change')
  for (const i of [0, 1, 10])
    await step.getByRole('checkbox', { name: `shop/lamp-${i}.html`, exact: true }).uncheck()
  await expect(page.getByTestId('change-pages-figures')).toContainText('41 pages would change, 3 left out')
  await checkAccess(page, 'a change of many pages', 'day')
  await step.getByRole('button', { name: 'Keep on 41 pages' }).click()
  await expect(ledger).toContainText('Lamp 11 by Newlight')
  await saved(page)
  await page.keyboard.press('Control+z')
  await expect(ledger).toContainText('Lamp 11 by Oldshire')
  await page.keyboard.press('Control+Shift+z')
  await expect(ledger).toContainText('Lamp 11 by Newlight')

  await change(page, 'Fill what is empty')
  await step.getByRole('button', { name: 'See what it would do' }).click()
  await expect(page.getByTestId('change-pages-figures')).toContainText('44 pages would change')
  await expect(step).toContainText('This lamp burns for 0 hours on one filling of oil.')
  await step.getByRole('button', { name: 'Keep on 44 pages' }).click()
  // The pages stay in sight until another filter is chosen.
  await expect(ledger).toContainText('This lamp burns for 0 hours')
  await saved(page)

  await go(page, `/sites/${site}/review`)
  const review = page.getByTestId('review')
  await expect(review).toHaveAttribute('data-path', 'shop/lamp-0.html')
  await expect(page.getByTestId('review-results')).toBeVisible()
  await checkAccess(page, 'review')
  await page.getByLabel('Your name').fill('Maud')
  await review.focus()
  await page.keyboard.press('a')
  await expect(review).toHaveAttribute('data-path', 'shop/lamp-1.html')
  await page.keyboard.press('b')
  await page.getByLabel('What should be different').fill('Say whose lamp it is.')
  await page.keyboard.press('Enter')
  await expect(review).toHaveAttribute('data-path', 'shop/lamp-10.html')
  await page.keyboard.press('s')
  await expect(page.getByTestId('source-difference').locator('.cm-changedText').first()).toBeVisible()
  await page.keyboard.press('s')
  await page.keyboard.press('a')
  await expect(review).toHaveAttribute('data-path', 'shop/lamp-11.html')
  await page.getByRole('button', { name: /^shop\/lamp-1\.html/ }).click()
  await expect(review).toContainText('Sent back: Say whose lamp it is. (Maud)')
  await page.keyboard.press('o')
  await expect(page.getByTestId('desk')).toContainText('Say whose lamp it is. (Maud)')

  await go(page, `/sites/${site}/hand-off`)
  await expect(page.getByText('44 changed pages, 2 approved')).toBeVisible()
  const saving = async (click: () => Promise<void>) => {
    const [download] = await Promise.all([page.waitForEvent('download'), click()])
    return readFileSync(await download.path())
  }
  const approved = unzipSync(await saving(() => page.getByRole('button', { name: 'Approved only' }).click()))
  expect(Object.keys(approved).sort()).toEqual(['changes.csv', 'shop/lamp-0.html', 'shop/lamp-10.html'])
  const list = async (name: string) => {
    await page.getByRole('button', { name: 'Lists and notes …' }).click()
    return (await saving(() => page.getByRole('button', { name }).click())).toString()
  }
  expect(await list('Sitemap')).toContain('<loc>https://lamps.example/shop/lamp-0.html</loc><lastmod>')
  expect((await list('Addresses to be crawled')).trim().split('\n')).toHaveLength(PAGES)
  const note = await list('Covering note')
  expect(note).toContain('44 pages changed: meta description on 44 pages, title on 41 pages.')
  expect(note).toContain('No meta description: 44 pages')
  await page.getByRole('button', { name: 'Record the approved pages as handed off' }).click()
  await expect(page.getByTestId('hand-offs')).toContainText('1 hand-off so far')
  await saved(page)

  // Weeks later: the approved files are live, the others are as they were.
  await go(page, `/intake?again=${site}`)
  await page.getByTestId('again-file-input').setInputFiles({
    name: 'lamps.zip',
    mimeType: 'application/zip',
    buffer: zipOf({
      ...files,
      ...Object.fromEntries(Object.entries(approved).filter(([path]) => path.endsWith('.html'))),
    }),
  })
  await expect(page.getByRole('heading', { name: 'Taken in again' })).toBeVisible()
  await expect(page.getByRole('region', { name: /In place/ })).toContainText(
    'This lamp burns for 10 hours on one filling of oil.',
  )
  await expect(page.getByRole('region', { name: /Still to do/ })).toContainText('Lamp 11 by Newlight')
  const now = /sites\/([^/]+)/.exec(page.url())![1]!
  await go(page, `/sites/${now}/hand-off`)
  await page.getByText('1 hand-off so far').click()
  await expect(page.getByTestId('hand-offs').getByRole('row').nth(1).getByRole('cell').nth(2)).toHaveText('2')
  await expect(page.getByTestId('hand-offs').getByRole('row').nth(1).getByRole('cell').nth(3)).toHaveText(
    '2, as seen when pages were last taken in again',
  )
  await go(page, `/sites/${now}/progress`)
  await page.getByTestId('statistics-input').setInputFiles({
    name: 'numbers.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `date,page,clicks,impressions\n${[...'0123456789']
        .map((d) => `2026-10-0${d === '0' ? 1 : d},https://lamps.example/shop/lamp-${d}.html,${d},100\n`)
        .join('')}`,
    ),
  })
  await expect(page.getByTestId('before-after')).toContainText('No changed page has a whole week')
  expect(problems).toEqual([])
})

test('the ledger: columns and views kept with the site, sorted, filtered with counts; cells pasted and from a sheet', async ({
  page,
  context,
}) => {
  const problems = watchConsole(page)
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await openDemo(page)
  const ledger = page.getByTestId('ledger')
  await page.getByRole('combobox', { name: 'Folder' }).click()
  await page.getByRole('option', { name: /^\/tours\/, \d+/ }).click()
  await expect(page).toHaveURL(/folder=/)
  await page.getByRole('button', { name: 'Columns …' }).click()
  await page.getByRole('checkbox', { name: 'Links in' }).check()
  await page.getByRole('checkbox', { name: 'Takes' }).uncheck()
  await page.keyboard.press('Escape')
  const linksIn = ledger.getByRole('columnheader', { name: 'Links in' })
  // Two clicks, as fast as they come: up, and down again.
  await ledger.getByRole('button', { name: 'Links in' }).dblclick()
  await expect(linksIn).toHaveAttribute('aria-sort', 'descending')
  await ledger.getByRole('button', { name: 'Links in' }).click()
  await expect(linksIn).toHaveAttribute('aria-sort', 'ascending')
  await page.getByRole('button', { name: /^Views/ }).click()
  await page.getByLabel('Name of the view').fill('Tours by links')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.keyboard.press('Escape')
  await saved(page)
  await page.getByRole('separator', { name: 'Width of Title' }).focus()
  await page.keyboard.press('ArrowRight')
  await saved(page)
  await allPages(page)
  await page.reload()
  await expect(ledger.getByRole('columnheader', { name: 'Links in' })).toBeVisible()
  await expect(ledger.getByRole('columnheader', { name: 'Takes' })).toHaveCount(0)
  // Loaded anew, so that nothing is left of how it was looked at.
  await page.goto(page.url().replace(/\?.*/, ''))
  await page.getByRole('button', { name: /^Views, 1/ }).click()
  await page.getByRole('button', { name: 'Tours by links' }).first().click()
  await expect(page).toHaveURL(/order=links-in/)

  // Cells from a spreadsheet become drafts after they were looked at.
  await page.evaluate(() => navigator.clipboard.writeText('First tour\tWhat there is to see.\nSecond tour'))
  await page.locator('[data-cell="0-1"]').focus()
  await page.keyboard.press('Control+v')
  const step = page.getByTestId('change-pages')
  await expect(page.getByTestId('change-pages-figures')).toContainText('2 pages would change')
  await expect(step).toContainText('What there is to see.')
  await step.getByRole('button', { name: 'Keep on 2 pages' }).click()
  await expect(ledger).toContainText('Second tour')
  await saved(page)

  // Out as a sheet and in again: what differs is shown, and nothing else.
  await page.getByRole('button', { name: 'Sheet …' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Write \d+ pages as CSV/ }).click(),
  ])
  const csv = readFileSync(await download.path(), 'utf8')
  await page.getByRole('button', { name: 'Sheet …' }).click()
  await page.getByTestId('ledger-sheet-input').setInputFiles({
    name: 'back.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(csv.replace('First tour', 'The very first tour')),
  })
  await expect(page.getByTestId('change-pages-figures')).toContainText('1 page would change')
  await page.getByRole('button', { name: 'Keep on 1 page' }).click()
  await expect(ledger).toContainText('The very first tour')
  await checkAccess(page, 'the ledger, filtered', 'day')
  expect(problems).toEqual([])
})

test('progress: weeks with hand-offs, before and after in words, where to work next; a sheet; the service gone', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await go(page, `/sites/${site}/progress`)
  const told = page.getByTestId('before-after')
  await expect(told).toContainText(/About \d+ % more clicks than pages left alone, between \d+ and \d+ %/)
  await expect(page.getByTestId('statistics-source')).toContainText('invented for the demo')
  // The ledger knows them from now on.
  await go(page, `/sites/${site}/ledger`)
  await allPages(page)
  await page.getByRole('button', { name: 'Columns …' }).click()
  await page.getByRole('checkbox', { name: 'Clicks' }).check()
  await page.keyboard.press('Escape')
  const clicks = page.getByTestId('ledger').getByRole('button', { name: 'Clicks' })
  await clicks.click()
  await expect(page.getByRole('columnheader', { name: 'Clicks' })).toHaveAttribute('aria-sort', 'ascending')
  await clicks.click()
  await expect(page).toHaveURL(/order=clicks&down=1/)
  await expect(page.getByTestId('ledger').getByRole('row').nth(1)).toContainText(/\d,\d{3}$/)
  await saved(page)
  await go(page, `/sites/${site}/progress`)
  await page.getByText('Page by page').click()
  await expect(told.getByRole('row')).toHaveCount(13)
  await checkAccess(page, 'progress')
  await page.getByRole('combobox', { name: 'of', exact: true }).click()
  await page.getByRole('option', { name: 'tower tour' }).click()
  await expect(page).toHaveURL(/phrase/)
  await expect(page.getByRole('img', { name: /^Clicks by week/ })).toBeVisible()
  const next = page.getByTestId('where-next')
  await next.getByRole('region', { name: 'Phrases within reach' }).getByRole('link').first().click()
  await expect(page.getByRole('tab', { name: 'Line-up' })).toHaveAttribute('aria-selected', 'true')
  expect(problems).toEqual([])
  // What was known stays when nobody answers; a sheet takes its place.
  await page.route('**/statistics', (route) =>
    route.fulfill({
      json: { ok: false, off: false, why: 'The statistics service answered with status 503.' },
    }),
  )
  await go(page, `/sites/${site}/progress`)
  await expect(told).toContainText(/About \d+ % more clicks/)
  await page.getByTestId('statistics-input').setInputFiles({
    name: 'numbers.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'date,page,clicks,impressions\n2026-10-01,https://farrowskerry.example/tours/,3,40\n2026-10-02,nowhere,1,1\n',
    ),
  })
  await expect(page.getByText('1 row taken in. 1 row left out; row 3:')).toBeVisible()
  await expect(page.getByTestId('statistics-source')).toContainText('numbers.csv')
  await expect(told).toContainText('No changed page has a whole week')
})
