/** The line-up: our draft among the others, moved, typed, compared; the service down. */
import { expect, test } from '@playwright/test'
import { checkAccess, openDemo, openDesk, saved, watchConsole } from './helpers.ts'

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
  await checkAccess(page, 'the line-up on a narrow screen')
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
  await lineUp.getByLabel('Results for').fill('lighthouse tours')
  await lineUp.getByRole('button', { name: 'Look up' }).click()
  await expect(ours).toBeVisible()
  // A question is taken to the galley.
  await lineUp
    .getByRole('button', { name: /^Answer on this page: / })
    .first()
    .click()
  await expect(page.getByTestId('new-block').getByLabel('The question')).toHaveValue(/\?$/)
  await expect(page.getByLabel('Its answer')).toBeFocused()
  expect(problems).toEqual([])
})
