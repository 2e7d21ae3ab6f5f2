/** The galley: the page's text read and edited in place, by keyboard; what is handed off reads as it was typed. */
import { expect, test } from '@playwright/test'
import {
  checkAccess,
  openDemo,
  openDesk,
  openShelf,
  saved,
  takeInZip,
  watchConsole,
  wholeZip,
  zipOf,
} from './helpers.ts'

test('text is edited block by block, links and bold words stay, and the handed-off page reads as typed', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'index.html', 'galley')
  const galley = page.getByTestId('galley')
  await expect(galley.getByTestId('phrases')).toContainText('“island lighthouse” 2 times')
  await expect(galley.getByTestId('phrases')).toContainText('Not in the text: “lighthouse visit”')
  await expect(galley.locator('[data-hit=primary]').first()).toHaveText('island lighthouse')
  await expect(galley.getByTestId('lead-ends')).toBeVisible()
  await checkAccess(page, 'the galley')
  const block = (text: string) => galley.locator('[data-block]').filter({ hasText: text })
  await block('twice a day').getByRole('button').focus()
  await page.keyboard.press('Enter')
  await expect(galley.getByRole('textbox').first()).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('On a lighthouse visit the boat crosses twice a day & waits.')
  await expect(galley.getByTestId('phrases')).toContainText('“lighthouse visit” 1 time')
  // The second link has lost its words.
  await expect(block('On a lighthouse visit')).toContainText('A link goes with its words: tours/')
  await checkAccess(page, 'a block that is edited', 'day')
  await page.keyboard.press('Escape')
  await expect(block('On a lighthouse visit').getByRole('button')).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(block('Stay for longer').getByRole('button')).toBeFocused()
  await saved(page)
  const files = await wholeZip(page, site)
  const html = new TextDecoder().decode(files['index.html'])
  expect(html).toContain(
    '<p>On a lighthouse visit the <a href="crossings/">boat crosses</a> twice a day &amp; waits.</p>',
  )
  await openDesk(page, site, 'index.html', 'galley')
  await expect(galley.getByTestId('phrases')).toContainText('“lighthouse visit” 1 time')
  await page.keyboard.press('Control+z')
  await expect(block('when the sea allows')).toBeVisible()
  await expect(galley.getByTestId('phrases')).toContainText('Not in the text: “lighthouse visit”')
  expect(problems).toEqual([])
})

test('a block is taken out and put back', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'kitchen/fish-stew.html', 'galley')
  const galley = page.getByTestId('galley')
  const words = 'This fish stew needs one pot'
  await galley.getByRole('button', { name: words }).focus()
  await page.keyboard.press('Delete')
  await expect(galley.getByText(words)).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(galley.getByText(words).first()).toBeVisible()
})

test('a block that cannot be edited says why, and stays', async ({ page }) => {
  const html =
    '<!doctype html><html lang="en"><title>The lamp</title><main><h1>The lamp</h1><p>It burns <b>all night.</p><p>By day it rests.</b></p></main>'
  await openShelf(page)
  await takeInZip(page, 'lamp.zip', zipOf({ 'index.html': html }), 'https://lamps.example/')
  await expect(page.getByTestId('what-is-left')).toBeVisible()
  await openDesk(page, /sites\/([^/]+)/.exec(page.url())![1]!, 'index.html', 'galley')
  const block = page.getByTestId('galley').locator('[data-block]').filter({ hasText: 'It burns' })
  await block.getByRole('button', { name: 'read-only' }).focus()
  await page.keyboard.press('Enter')
  await expect(block.getByRole('status')).toContainText('Its tags are not closed where they seem to be')
  await page.keyboard.press('Delete')
  await expect(block).toContainText('It burns all night.')
})

test('words are linked to a page, and the link is in the page that is handed off', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'visit/index.html', 'galley')
  const galley = page.getByTestId('galley')
  const block = galley.locator('[data-block]').filter({ hasText: 'A path of rolled gravel' })
  await block.getByRole('button').focus()
  await page.keyboard.press('Enter')
  const field = block.getByRole('textbox').first()
  await expect(field).toBeFocused()
  await page.keyboard.press('Control+Home')
  const before = (await field.inputValue()).indexOf('cottage')
  for (let i = 0; i < before; i++) await page.keyboard.press('ArrowRight')
  for (let i = 0; i < 'cottage'.length; i++) await page.keyboard.press('Shift+ArrowRight')
  await block.getByLabel('Link “cottage” to').fill('/stay/')
  await checkAccess(page, 'linking words', 'day')
  await block.getByRole('button', { name: 'Link it' }).click()
  await expect(block).toContainText('edited')
  await saved(page)
  const files = await wholeZip(page, site)
  expect(new TextDecoder().decode(files['visit/index.html'])).toContain('to the <a href="/stay/">cottage</a>')
})
