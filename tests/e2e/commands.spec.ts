/** The palette, the tabs of the desk and the list of keys, by keyboard alone. */
import { expect, test } from '@playwright/test'
import { checkAccess, openDemo, openDesk, saved } from './helpers.ts'

test('the palette goes to a page, to a view and to a sheet by their names, and does what its keys do', async ({
  page,
}) => {
  const site = await openDemo(page)
  const palette = page.getByRole('dialog', { name: 'Go to' })
  const goTo = async (typed: string) => {
    await page.keyboard.press('Control+k')
    await expect(palette).toBeVisible()
    await page.keyboard.type(typed)
    await expect(palette.locator('[cmdk-item][data-selected=true]')).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(palette).toBeHidden()
  }
  await goTo('lens room')
  await expect(page).toHaveURL(/desk\?page=tours%2Flens-room/)
  await expect(page.locator('[data-testid=desk][data-ready=true]')).toBeVisible()
  await goTo('outline')
  await expect(page.getByRole('tab', { name: 'Outline' })).toHaveAttribute('aria-selected', 'true')
  await goTo('approve')
  await expect(page.getByTestId('state')).toContainText('approved')
  await goTo('hand-off')
  await expect(page).toHaveURL(new RegExp(`${site}/hand-off`))
  // What belongs to the desk is not offered elsewhere.
  await page.keyboard.press('Control+k')
  await page.keyboard.type('copy the title')
  await expect(palette.getByText('Nothing here is called that.')).toBeVisible()
  await checkAccess(page)
  await page.keyboard.press('Control+a')
  await page.keyboard.type('tower')
  await expect(palette.getByRole('option').first()).toBeVisible()
  await checkAccess(page, page.url(), 'day')
  await page.keyboard.press('Escape')
  await expect(palette).toBeHidden()
})

test('the sheets of a page are gone through with the arrow keys, and keys work in a field', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/tower.html')
  await page.getByRole('tab', { name: 'Snippet' }).focus()
  for (const name of ['Line-up', 'Outline', 'Galley', 'Links', 'Data', 'Head', 'Source', 'Snippet']) {
    await page.keyboard.press('ArrowRight')
    await expect(page.getByRole('tab', { name })).toBeFocused()
    await expect(page.getByRole('tabpanel', { name })).toBeVisible()
  }
  await page.getByTestId('title').focus()
  await page.keyboard.press('Alt+ArrowDown')
  await expect(page).not.toHaveURL(/tower/)
  // The next page's field is another, and has no focus.
  await expect(page.getByTestId('title')).not.toBeFocused()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('Copy the title')
})

test('undo is where the keyboard has its Z: a German one has it in the place of the Y', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/tower.html')
  const title = page.getByTestId('title')
  const before = await title.inputValue()
  await title.fill('Another title')
  await title.blur()
  await saved(page)
  await page
    .locator('body')
    .dispatchEvent('keydown', { key: 'z', code: 'KeyY', ctrlKey: true, bubbles: true })
  await expect(title).toHaveValue(before)
})
