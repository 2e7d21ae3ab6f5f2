/** The line-up: our draft among the others, moved, typed, compared; the service down. */
import { expect, test } from '@playwright/test'
import { checkAccess, go, openDemo, openDesk, saved, watchConsole } from './helpers.ts'

test('ours is set at places, typed where it stands, a take is chosen there, and what was known stays', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/index.html', 'line-up')
  const lineUp = page.getByTestId('line-up')
  const ours = page.getByTestId('our-result')
  await expect(ours).toBeVisible()
  await expect(lineUp.getByText('2026-11-20, invented for the demo')).toBeVisible()
  await expect(lineUp.getByTestId('what-others-do')).toContainText(
    'Of 9 other results for “lighthouse tours”',
  )
  await checkAccess(page, 'the line-up')
  await lineUp.getByRole('button', { name: 'Put ours at 8' }).click()
  await expect(ours).toHaveAttribute('data-place', '8')
  const place = lineUp.getByRole('spinbutton', { name: 'Ours at' })
  await place.focus()
  await page.keyboard.press('ArrowUp')
  await expect(ours).toHaveAttribute('data-place', '9')
  await place.fill('2')
  await expect(ours).toHaveAttribute('data-place', '2')
  await expect(lineUp.locator('[data-figures="2"]')).toContainText('phrase first')
  // Typing here is typing on the Snippet sheet.
  await lineUp.getByTestId('line-up-title').fill('Cheap Lighthouse Tours: 3 Ways Up in 2026')
  await expect(lineUp.locator('[data-figures="2"]')).toContainText('phrase later, numbers 3, 2026')
  await lineUp.getByTestId('line-up-title').blur()
  await saved(page)
  await page.getByRole('tab', { name: 'Snippet' }).click()
  await expect(page.getByTestId('title')).toHaveValue('Cheap Lighthouse Tours: 3 Ways Up in 2026')
  await page.keyboard.press('Alt+t')
  await page.getByTestId('title').fill('Lighthouse Tours')
  await page.getByTestId('title').blur()
  await page.getByRole('tab', { name: 'Line-up' }).click()
  await ours.getByRole('button', { name: /^1: Cheap Lighthouse Tours/ }).click()
  await expect(lineUp.getByTestId('line-up-title')).toHaveValue('Cheap Lighthouse Tours: 3 Ways Up in 2026')
  await saved(page)
  // Narrow, in another market, and for another phrase.
  await page.getByRole('combobox', { name: 'Screen' }).click()
  await page.getByRole('option', { name: 'narrow' }).click()
  await expect(ours.getByTestId('narrow-title')).toBeVisible()
  const first = lineUp.getByRole('listitem').filter({ has: page.locator('[data-figures="1"]') })
  const before = await first.textContent()
  await page.getByRole('combobox', { name: 'Readers' }).click()
  await page.getByRole('option', { name: 'worldwide' }).click()
  await expect(first).not.toHaveText(before!)
  await checkAccess(page, 'the line-up on a narrow screen', 'day')
  await page.getByLabel('Where the eye lands').check()
  await expect(page.getByTestId('eye').getByRole('listitem')).toHaveCount(10)
  await checkAccess(page, 'where the eye lands')
  await page.getByLabel('Where the eye lands').uncheck()
  // The service is down: what is not known is said, what was known today is there.
  await page.route('**/results', (route) =>
    route.fulfill({ json: { ok: false, off: false, why: 'The results service answered with status 503.' } }),
  )
  await lineUp.getByLabel('Results for').fill('fish soup')
  await lineUp.getByRole('button', { name: 'Look up' }).click()
  await expect(page.getByTestId('results-failed')).toContainText('status 503')
  // Slow, then nonsense, then switched off: each is said, and only what can be asked again offers it.
  let answer = () => {}
  const answered = new Promise<void>((resolve) => (answer = resolve))
  const fails = async (why: string, off: boolean) => {
    await page.unroute('**/results')
    await page.route('**/results', async (route) => {
      if (route.request().method() !== 'POST') return route.continue()
      await answered
      await route.fulfill({ json: { ok: false, off, why } })
    })
  }
  await fails('The results service sent something that is not JSON.', false)
  await lineUp.getByLabel('Results for').fill('seed cake')
  await lineUp.getByRole('button', { name: 'Look up' }).click()
  await expect(lineUp.getByText('Asking for the results for “seed cake” …')).toBeVisible()
  answer()
  await expect(page.getByTestId('results-failed')).toContainText('not JSON')
  await fails('The results service is switched off here.', true)
  await page.getByTestId('results-failed').getByRole('button', { name: 'Ask again' }).click()
  await expect(page.getByTestId('results-failed')).toContainText('switched off')
  await expect(page.getByTestId('results-failed').getByRole('button')).toHaveCount(0)
  await lineUp.getByLabel('Results for').fill('lighthouse tours')
  await lineUp.getByRole('button', { name: 'Look up' }).click()
  await expect(ours).toBeVisible()
  // A question is taken to the galley, which offers the others that came with the results as well.
  const asked = lineUp.getByRole('button', { name: /^Answer on this page: / })
  const another = await asked.last().getAttribute('aria-label')
  await asked.first().click()
  await expect(page.getByTestId('new-block').getByLabel('The question')).toHaveValue(/\?$/)
  await expect(page.getByLabel('Its answer')).toBeFocused()
  await page.getByTestId('questions').locator('summary').click()
  await expect(page.getByTestId('questions').getByRole('button', { name: another! })).toBeVisible()
  expect(problems).toEqual([])
})

test('competitors’ pages are compared, and the colleague chooses among takes in the line-up', async ({
  page,
  context,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/index.html', 'line-up')
  const lineUp = page.getByTestId('line-up')
  const ours = page.getByTestId('our-result')
  await lineUp.getByTestId('line-up-title').fill('Lighthouse Tours Every Hour')
  await page.keyboard.press('Alt+t')
  await expect(ours.getByRole('button', { name: '1: Lighthouse Tours Every Hour' })).toBeVisible()
  await lineUp.getByTestId('line-up-title').fill('Tours of a Lighthouse')
  await page.keyboard.press('Alt+n')
  await expect(lineUp.getByTestId('line-up-title')).toHaveValue('Lighthouse Tours Every Hour')
  await page.keyboard.press('Alt+n')
  await expect(lineUp.getByTestId('line-up-title')).toHaveValue('Tours of a Lighthouse')
  await lineUp.getByTestId('line-up-title').blur()
  await lineUp.getByRole('button', { name: 'Put ours at 3' }).click()
  await expect(ours).toHaveAttribute('data-place', '3')
  await saved(page)
  for (const place of [1, 2, 5])
    await lineUp.getByRole('checkbox', { name: `Compare the page at ${place}`, exact: true }).check()
  await expect(lineUp.getByRole('checkbox', { name: 'Compare the page at 4' })).toBeDisabled()
  await lineUp.getByRole('button', { name: 'Compare ours with 3 pages' }).click()
  const compare = page.getByTestId('compare')
  await expect(page.getByTestId('what-is-lacking')).toContainText('All 3 others have')
  await expect(compare.getByRole('columnheader')).toHaveCount(5)
  await expect(compare.getByRole('row', { name: /^Structured data/ })).toContainText('organization')
  await compare
    .getByRole('button', { name: /^Remove/ })
    .first()
    .click()
  await expect(compare.getByRole('columnheader')).toHaveCount(4)
  // An address that nobody answers at is named, and the rest stands.
  await compare.getByLabel('an address').fill('https://nobody.example/')
  await compare.getByRole('button', { name: 'Fetch it' }).click()
  await expect(compare.getByRole('alert')).toBeVisible()
  await expect(page.getByTestId('what-is-lacking')).toContainText('All 2 others have')
  await checkAccess(page, 'a comparison with others', 'day')

  await go(page, `/sites/${site}/hand-off`)
  await page.getByRole('button', { name: 'For approval …' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Save the file for 1 page/ }).click(),
  ])
  const file = test.info().outputPath('for-approval.html')
  await download.saveAs(file)
  const colleague = await context.newPage()
  await colleague.goto(`file://${file}`)
  await colleague.getByText('Among the others, after').click()
  const among = colleague.locator('details.among')
  await expect(among.locator('li')).toHaveCount(10)
  await expect(among.locator('li.ours .title:visible')).toHaveText('Tours of a Lighthouse')
  await colleague.getByRole('radio', { name: 'Lighthouse Tours Every Hour' }).check()
  await expect(among.locator('li.ours .title:visible')).toHaveText('Lighthouse Tours Every Hour')
  await colleague.getByLabel('Yes').check()
  const [answers] = await Promise.all([
    colleague.waitForEvent('download'),
    colleague.getByRole('button', { name: 'Save the answers' }).click(),
  ])
  await page.getByTestId('answers-input').setInputFiles(await answers.path())
  await expect(page.getByText(/1 approved.*On 1 page another wording was chosen/)).toBeVisible()
  await colleague.close()
  await openDesk(page, site, 'tours/index.html')
  await expect(page.getByTestId('title')).toHaveValue('Lighthouse Tours Every Hour')
  await expect(page.getByTestId('desk')).toContainText('State: approved')
  expect(problems).toEqual([])
})

test('the site’s table: phrases looked up, from a sheet, filtered; a question is taken to an inner page', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await go(page, `/sites/${site}/keywords?view=results`)
  const view = page.getByTestId('site-results')
  const table = view.getByRole('table')
  const rowOf = (name: string) => table.getByRole('row').filter({ hasText: name })
  const find = view.getByRole('searchbox', { name: 'Find a page or a phrase' })
  await find.fill('tower tour')
  await expect(rowOf('The tower tour')).toContainText('not looked up yet')
  await page.getByTestId('results-input').setInputFiles({
    name: 'results.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'keyword,position,url,title\nTower Tour,3,https://farrowskerry.example/tours/tower.html,Another title\ntower tour,x,,\n',
    ),
  })
  await page.getByRole('button', { name: 'Keep 2 rows' }).click()
  await expect(page.getByText('Results for 1 phrase taken in. 1 row left out; row 3:')).toBeVisible()
  await expect(rowOf('The tower tour')).toContainText('another than the page’s own')
  await expect(rowOf('The tower tour')).toContainText('results.csv')
  await view.getByRole('button', { name: /^Look up \d+ primary phrases/ }).click()
  await expect(view.getByText(/^[5-9] of \d+ phrases looked up/)).toBeVisible()
  await view.getByRole('button', { name: 'Stop' }).click()
  await expect(view.getByRole('button', { name: /^Look up \d+ primary phrases/ })).toBeVisible()
  await find.fill('')
  await expect(table.getByRole('row').nth(1)).toContainText('invented for the demo')
  await checkAccess(page, 'the site in the results')
  await view.getByRole('combobox', { name: 'Show' }).click()
  await page.getByRole('option', { name: /^pages for frequent questions/ }).click()
  await expect(rowOf('An island lighthouse you can climb')).toHaveCount(0)
  await find.fill('tower tour')
  await table.getByRole('link', { name: 'Answer questions on The tower tour' }).click()
  await expect(page.getByRole('tab', { name: 'Galley' })).toHaveAttribute('aria-selected', 'true')
  expect(problems).toEqual([])
  // The service is gone: what was known stays.
  await page.route('**/results', (route) => route.abort())
  await go(page, `/sites/${site}/keywords?view=results`)
  await find.fill('tower tour')
  await expect(rowOf('The tower tour')).toContainText('results.csv')
})
