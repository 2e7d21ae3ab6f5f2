/** The first pass, as somebody goes through it who has never done this: by keyboard, by pointer, and on a narrow screen. */
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { stepIds } from '../../app/first-pass/steps.ts'
import { checkAccess, go, openDemo, openShelf, saved, takeInZip, watchConsole, zipOf } from './helpers.ts'

const step = (page: Page) => page.getByTestId('slip')
const at = (page: Page, name: string) => expect(step(page)).toHaveAttribute('data-step', name)
const focusIn = (page: Page, selector: string) => expect(page.locator(`${selector}:focus`)).toHaveCount(1)

test('from an address to a handed-off title, by keyboard', async ({ page }) => {
  const problems = watchConsole(page)
  await openShelf(page)
  // As if the eyes read along: the time between is the reader's own.
  const began = Date.now()
  let presses = 0
  const press = async (key: string) => {
    presses++
    await page.keyboard.press(key)
  }
  const type = async (text: string) => {
    presses += text.length
    await page.keyboard.type(text)
  }
  const to = async (name: string) => {
    await press('Alt+g')
    await at(page, name)
  }
  await page.getByLabel('By its address').focus()
  await type('tidewatch.example')
  await press('Enter')
  await page.getByLabel('The address of a page, a site or a sitemap').focus()
  await press('Enter')
  await page.getByRole('button', { name: 'Take in 10 pages' }).focus()
  await press('Enter')
  await page.getByRole('button', { name: 'Open the ledger' }).focus()
  await press('Enter')
  const begin = page.getByRole('button', { name: 'Begin the first pass' })
  await begin.focus()
  await press('Enter')

  await at(page, 'readers')
  await focusIn(page, 'input[name=topic]')
  await type('lighthouse')
  await press('Enter')
  await expect(page.getByTestId('phrases-shown')).not.toHaveText('0 phrases')
  await to('phrases')
  const firstPhrase = '[aria-labelledby=phrases-title] input[type=checkbox]'
  await focusIn(page, firstPhrase)
  await press('Space')
  await expect(step(page)).toContainText('Kept so far on the site’s list: 1 phrase.')
  await to('phrase')
  await focusIn(page, '#primary')
  await type('sea caves')
  await expect(step(page)).toContainText('This page is for: “sea caves”.')
  await to('title')
  await focusIn(page, '[data-testid=line-up-title]')
  await expect(page.getByTestId('line-up-takes')).toContainText('drafted')
  const title = page.getByTestId('line-up-title')
  const before = await title.inputValue()
  await press('Alt+n')
  await expect(title).not.toHaveValue(before)
  await press('End')
  await type(' today')
  const written = await title.inputValue()
  expect(written).toMatch(/ today$/)
  await to('description')
  await focusIn(page, '[data-testid=description]')
  await press('Control+a')
  await type('Sea caves, tides and boats at Tidewatch Point, with a map of the way there.')
  await to('heading')
  await focusIn(page, '[role=treeitem]')
  await to('text')
  await focusIn(page, '[data-testid=galley] [data-block] [tabindex="0"]')
  await to('pictures')
  await to('questions')
  await to('review')
  const review = page.getByTestId('review')
  await expect(review).toContainText('today')
  await page.getByText(/edits?, each with its way back/).click()
  await expect(page.getByTestId('ways-back')).toContainText('with a map of the way there.')
  await review.focus()
  await press('a')
  await saved(page)
  await press('Alt+g')
  await expect(page.getByTestId('slip-end')).toContainText('is approved: hand it off')
  await expect(page.getByTestId('slip-end')).toBeFocused()
  await checkAccess(page, 'the end of the first pass', 'day')
  await page.getByRole('link', { name: 'Hand off' }).focus()
  await press('Enter')
  await page.getByRole('button', { name: 'Change sheet as CSV' }).focus()
  const [download] = await Promise.all([page.waitForEvent('download'), press('Enter')])
  expect(readFileSync(await download.path(), 'utf8')).toContain(written)
  console.log(
    `first pass by keyboard: ${presses} keys, ${Math.round((Date.now() - began) / 1000)} s without reading`,
  )
  expect(problems).toEqual([])
})

test('left in the middle, reloaded and gone on with by pointer; each change taken back from the review; a second page', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await go(page, `/sites/${site}/ledger?view=left`)
  await page.getByRole('button', { name: 'Begin the first pass' }).click()
  await at(page, 'readers')
  await checkAccess(page, 'a slip of the first pass')
  const on = page.getByRole('button', { name: 'Done, go on' })
  await on.click()
  await at(page, 'phrases')
  await page.getByRole('button', { name: 'Skip' }).click()
  await at(page, 'phrase')
  await on.click()
  await at(page, 'title')
  await page.getByTestId('line-up-title').fill('An Island Lighthouse, and How to Climb It')
  await saved(page)
  await page.getByRole('button', { name: 'Put away' }).click()
  await expect(step(page)).toHaveCount(0)
  await go(page, `/sites/${site}/ledger?view=left`)
  await expect(page.getByText(/the next step is “Title”, 2 of 10 are done/)).toBeVisible()
  await page.getByRole('button', { name: 'Go on with it' }).click()
  await at(page, 'title')
  await page.reload()
  await at(page, 'title')
  await expect(page.getByTestId('line-up-title')).toHaveValue('An Island Lighthouse, and How to Climb It')
  // Undo takes back what was written, not the step.
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByTestId('line-up-title')).toHaveValue(
    'Island Lighthouse You Can Climb | Farrowskerry Light',
  )
  await at(page, 'title')
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(page.getByTestId('line-up-title')).toHaveValue('An Island Lighthouse, and How to Climb It')
  await page.getByRole('button', { name: 'Back', exact: true }).click()
  await at(page, 'phrase')
  await page
    .getByRole('list', { name: 'Steps of the first pass' })
    .getByRole('button', { name: 'Review' })
    .click()
  await at(page, 'review')
  await page.getByText('1 edit, each with its way back').click()
  await page.getByRole('button', { name: /^Take back: Title/ }).click()
  await expect(page.getByText('Nothing has changed yet.')).toBeVisible()
  await on.click()
  await expect(page.getByTestId('slip-end')).toContainText('is a draft until it is approved')
  await page.getByRole('button', { name: /^Take the next page/ }).click()
  await at(page, 'readers')
  // From the second page on the slips are shorter.
  await expect(step(page)).not.toContainText('Say where your readers are')
  await expect(step(page)).toContainText('A good topic is a word that a reader would use')
  expect(problems).toEqual([])
})

test('the first pass on a narrow screen', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await openShelf(page)
  await takeInZip(
    page,
    'one.zip',
    zipOf({
      'index.html':
        '<!doctype html><html lang="en"><head><title>Lamps</title></head><body><main><h1>Lamps</h1><p>Lamps made by hand.</p></main></body></html>',
    }),
    'https://lamps.example/',
  )
  await page.getByRole('button', { name: 'Begin the first pass' }).click()
  for (const name of stepIds) {
    await at(page, name)
    // Nothing of the slip is out of sight to the side.
    expect(
      await page
        .getByLabel('First pass', { exact: true })
        .evaluate((slip) => slip.scrollWidth - slip.clientWidth),
    ).toBe(0)
    if (name === 'description')
      await page.getByTestId('description').fill('Lamps made by hand, one at a time.')
    await page.getByRole('button', { name: 'Done, go on' }).click()
  }
  await expect(page.getByTestId('slip-end')).toBeVisible()
  await checkAccess(page, 'the end of the first pass, narrow', 'day')
})
