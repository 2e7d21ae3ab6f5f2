/** Keywords: phrases found, the map, placement, the text edited, a question added, a mention linked, all of it handed off. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { checkAccess, DEMO, go, openDemo, openDesk, saved, watchConsole, wholeZip } from './helpers.ts'

const openKeywords = async (page: Page, site: string, query = '') => {
  await go(page, `/sites/${site}/keywords${query}`)
  await expect(page.getByRole('heading', { name: 'Keywords', exact: true })).toBeVisible()
}
const table = (page: Page) => page.getByTestId('phrase-table')
const shown = (page: Page) => page.getByTestId('phrases-shown')

test('from a topic to the handed-off page: phrases, map, placement, text, question, mention, data', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await page.getByRole('link', { name: 'Keywords' }).click()
  await page.getByLabel('Topic, in one or two words').fill('lighthouse cottage')
  await page.keyboard.press('Enter')
  await expect(shown(page)).toHaveText('30 phrases')
  await expect(page.getByText('invented for the demo')).toBeVisible()
  await expect(table(page).getByRole('img').first()).toHaveAccessibleName(/^most in (July|August)/)
  await checkAccess(page, 'find phrases')
  // Three are kept by keyboard; what is kept is on the site's list.
  for (const phrase of [
    'lighthouse cottage',
    'lighthouse cottage with sea view',
    'how much does a lighthouse cottage cost',
  ]) {
    await page.getByLabel('Find a phrase').fill(phrase)
    const box = page.getByLabel(`Keep “${phrase}”`, { exact: true })
    await box.focus()
    await page.keyboard.press('Space')
    await expect(box).toBeChecked()
  }
  await page.getByLabel('Find a phrase').fill('')
  // The first is for the page about the cottage, as the second phrase of it.
  await page.getByRole('button', { name: 'Choose a page for “lighthouse cottage”', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByText('Speak of it the most')).toBeVisible()
  await checkAccess(page, 'which page is for a phrase', 'day')
  await dialog.getByLabel('as secondary keyword').check()
  await dialog.getByPlaceholder('Find a page').fill('stay in a lighthouse')
  await expect(dialog.getByRole('option').first()).toContainText('Stay in a lighthouse')
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await saved(page)

  // Placement is said alike in the ledger and on the desk.
  await go(page, `/sites/${site}/ledger`)
  await page.getByLabel('Find in the ledger').fill('stay/')
  const line = page.getByRole('row').filter({ hasText: 'stay in a lighthouse' }).first()
  const placed = await line.locator('[title*="first 100 words"]').getAttribute('title')
  await openDesk(page, site, 'stay/index.html', 'galley')
  await expect(page.getByTestId('placement')).toHaveText(`“stay in a lighthouse” in ${placed}.`)

  // The text says the phrase, a question is answered.
  const galley = page.getByTestId('galley')
  await expect(galley.getByTestId('phrases')).toContainText('“lighthouse cottage” 2 times')
  const first = galley.locator('[data-block]').filter({ hasText: /^p/ }).first()
  await first.getByRole('button').focus()
  await page.keyboard.press('Enter')
  await expect(first.getByRole('textbox')).toBeFocused()
  await page.keyboard.press('Control+End')
  await page.keyboard.type(' The lighthouse cottage is yours for a week.')
  await expect(galley.getByTestId('phrases')).toContainText('“lighthouse cottage” 3 times')
  await page.keyboard.press('Escape')
  await galley.getByTestId('questions').locator('summary').click()
  await galley
    .getByRole('button', { name: 'Answer on this page: How much does a lighthouse cottage cost?' })
    .click()
  const answer = page.getByLabel('Its answer')
  await expect(answer).toBeFocused()
  await page.keyboard.type('£310 a week & no more.')
  await checkAccess(page, 'a question that is answered', 'day')
  await page.keyboard.press('Control+Enter')
  await expect(galley.locator('[data-block]').filter({ hasText: '£310 a week' })).toContainText('new')
  await saved(page)

  // A mention on another page is linked.
  await page.getByRole('tab', { name: 'Links' }).click()
  const links = page.getByTestId('links')
  await expect(links.getByText('To book a lighthouse stay')).toBeVisible()
  await expect(links.getByText(/from \d+ pages, the home page among them/)).toBeVisible()
  await checkAccess(page, 'links')
  await links
    .getByRole('region', { name: /Pages that speak of/ })
    .getByRole('button', { name: 'Link them' })
    .click()
  await page.getByTestId('link-elsewhere').getByRole('button', { name: 'Link 1 mention' }).click()
  await expect(links.getByText('No other page speaks of it')).toBeVisible()
  await saved(page)

  // Structured data is built from the question.
  await openDesk(page, site, 'stay/index.html', 'data')
  await page.getByRole('button', { name: 'Questions and answers' }).click()
  await expect(page.getByLabel('Name', { exact: true }).first()).toHaveValue(
    'How much does a lighthouse cottage cost?',
  )
  await saved(page)

  const files = await wholeZip(page, site)
  const decode = (path: string) => new TextDecoder().decode(files[path])
  const html = decode('stay/index.html')
  expect(html).toContain('The lighthouse cottage is yours for a week.</p>')
  expect(html).toMatch(
    /<h3>How much does a lighthouse cottage cost\?<\/h3>\s*<p>£310 a week &amp; no more\.<\/p>/,
  )
  expect(html).toMatch(/"@type": "Question",\s*"name": "How much does a lighthouse cottage cost\?"/)
  expect(decode('stay/booking.html')).toContain('book a <a href="/stay/">lighthouse stay</a>')
  // Every other file is as it was, and these two but for what was put in.
  for (const [path, bytes] of Object.entries(files))
    if (!path.startsWith('stay/') && !path.endsWith('.csv'))
      expect(Buffer.from(bytes).equals(readFileSync(join(DEMO, path))), path).toBe(true)
  const taken = html
    .replace(' The lighthouse cottage is yours for a week.', '')
    .replace(/[ \t]*<h3>How much[\s\S]*?no more\.<\/p>\n/, '')
    .replace(
      /\n?[ \t]*<script type="application\/ld\+json">(?:(?!<\/script>)[\s\S])*?"Question"[\s\S]*?<\/script>/,
      '',
    )
  expect(taken.replace(/\s+/g, ' ')).toBe(
    readFileSync(join(DEMO, 'stay/index.html'), 'utf8').replace(/\s+/g, ' '),
  )
  // Chromium reads it as it was typed.
  await page.setContent(html)
  await expect(page.getByRole('heading', { name: 'How much does a lighthouse cottage cost?' })).toBeVisible()
  await expect(page.getByText('£310 a week & no more.')).toBeVisible()
  expect(problems.filter((p) => !/style\.css|img\/|net::|Failed to load/.test(p))).toEqual([])
})

test('phrases are found in one place, filtered by helper words and questions, from the site, a sheet and by hand', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openKeywords(page, site)
  await page.getByRole('button', { name: 'Look up' }).click()
  await expect(page.getByRole('alert')).toHaveText('Type one or two words for the topic.')
  await page.getByLabel('Topic, in one or two words').fill('tours')
  await page.getByRole('combobox', { name: 'Readers' }).click()
  await page.getByRole('option', { name: 'in one place' }).click()
  await page.getByLabel('Place').fill('Skerry Bay')
  await page.getByRole('button', { name: 'Look up' }).click()
  await expect(table(page).locator('[data-phrase="island tours skerry bay"]')).toBeVisible()
  await page
    .getByTestId('helper-words')
    .getByRole('button', { name: /^guided/ })
    .click()
  await expect(table(page).locator('[data-phrase]').first()).toHaveAttribute('data-phrase', /guided/)
  await page
    .getByTestId('helper-words')
    .getByRole('button', { name: /^guided/ })
    .click()
  await page.getByRole('combobox', { name: 'Only' }).click()
  await page.getByRole('option', { name: 'questions' }).click()
  await expect(table(page).locator('[data-phrase]').first()).toContainText('question')
  // Not asked for twice: what was answered today is there without the server.
  await page.route('**/demand', (route) => route.abort())
  await page.reload()
  await expect(table(page).locator('[data-phrase="island tours skerry bay"]')).toBeVisible()
  // Something else cannot be asked, and nothing is lost.
  await page.getByLabel('Topic, in one or two words').fill('fish soup')
  await page.getByRole('button', { name: 'Look up' }).click()
  await expect(page.getByTestId('demand-failed')).toContainText('Keen Quill’s own server cannot be reached.')
  await page.unroute('**/demand')
  await page.getByRole('button', { name: 'Ask again' }).click()
  await expect(table(page)).toBeVisible()

  await page.getByRole('button', { name: 'from the site itself' }).click()
  await expect(page.getByRole('heading', { name: 'Used by the site itself' })).toBeVisible()
  await expect(table(page).locator('[data-phrase]').first()).toBeVisible()
  await page.getByTestId('phrases-input').setInputFiles({
    name: 'ours.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Search term;Searches\r\nlens cleaning;1,200\r\n=1+1 lamps;30\r\n'),
  })
  await page.getByRole('button', { name: 'Read 2 rows' }).click()
  await expect(table(page).locator('[data-phrase="lens cleaning"]')).toContainText('1,200')
  await page.getByRole('button', { name: 'Keep all 2' }).click()
  await page.getByLabel('A phrase of your own').fill('island choir')
  await page.keyboard.press('Enter')
  await saved(page)
  // Loaded anew: what was looked for is gone, what was kept is there.
  await page.goto(`/sites/${site}/keywords`)
  await expect(shown(page)).toHaveText('3 phrases')
  await page.keyboard.press('Control+z')
  await expect(shown(page)).toHaveText('2 phrases')
})

test('the map by keyboard and by pointer: suggested, left out, dragged, clashes settled, undone', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openKeywords(page, site, '?topic=sailing+knots')
  await page.getByRole('button', { name: /^Keep all/ }).click()
  await saved(page)
  await page.getByRole('button', { name: 'The map' }).click()
  const phrases = page.getByTestId('map-phrases')
  await page.getByRole('button', { name: /^Suggest pages for/ }).click()
  const step = page.getByTestId('suggest-step')
  await expect(step.getByTestId('suggest-step-figures')).toContainText('would be assigned')
  await step.getByRole('checkbox').first().uncheck()
  await checkAccess(page, 'suggested pages', 'day')
  await step.getByRole('button', { name: /^Assign/ }).click()
  await expect(step).toBeHidden()
  await saved(page)
  await page.keyboard.press('Control+z')

  // From the page, by keyboard.
  const pages = page.getByTestId('map-pages')
  await page.getByLabel('Find a page').fill('contact')
  await pages.getByRole('button', { name: /^Choose a phrase for/ }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('dialog').getByPlaceholder('Find or type a phrase').fill('sailing knots chart')
  await page.keyboard.press('Enter')
  await expect(pages.locator('[data-page="contact.html"]')).toContainText('sailing knots chart')
  // By pointer, from the phrase.
  const handle = phrases.locator('[data-phrase="sailing knots"] [data-handle]')
  const from = (await handle.boundingBox())!
  const to = (await pages.locator('[data-page="contact.html"]').boundingBox())!
  await page.mouse.move(from.x + 5, from.y + 5)
  await page.mouse.down()
  await page.mouse.move(to.x + 100, to.y + 10, { steps: 8 })
  await page.mouse.up()
  await expect(pages.locator('[data-page="contact.html"]')).toContainText('sailing knots ×')
  await saved(page)

  await page.getByLabel('Find a page').fill('')
  await page.getByTestId('clashes').locator('summary').click()
  const clash = page.locator('[data-clash="kitchen recipes"]')
  await expect(clash).toContainText('2 pages for kitchen recipes')
  await checkAccess(page, 'the map with clashes')
  await clash.getByRole('button', { name: 'Only this page' }).first().click()
  await expect(clash).toBeHidden()
  await page.keyboard.press('Control+z')
  await expect(clash).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Keywords as CSV' }).click(),
  ])
  expect(readFileSync(await download.path(), 'utf8')).toContain('kitchen/index.html,kitchen recipes')
})

test('mentions are marked on every page when that is asked for, and follow the keywords', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openKeywords(page, site, '?view=map')
  await page.getByLabel('Mark mentions without a link on every page').check()
  await saved(page)
  await openDesk(page, site, 'courses/morse.html', 'links')
  await expect(page.locator('[data-rule="link-opportunity"]')).toContainText('lighting the lamp')
  await page.getByRole('tab', { name: 'Galley' }).click()
  await expect(page.locator('[data-rule="link-opportunity"]')).toHaveCount(1)
  await openDesk(page, site, 'videos/lighting-the-lamp.html')
  await page.getByLabel('Primary keyword').fill('lamp film')
  await page.keyboard.press('Tab')
  await saved(page)
  await openDesk(page, site, 'courses/morse.html', 'links')
  await expect(page.locator('[data-rule="link-opportunity"]')).toHaveCount(0)
})

test('a page is read aloud where the browser has a voice for its language', async ({ page }) => {
  await page.addInitScript(() => {
    const spoken: string[] = []
    Object.assign(globalThis, { spoken })
    const voice = { name: 'v', lang: 'en-GB', localService: true, default: true, voiceURI: 'v' }
    Object.defineProperty(globalThis, 'speechSynthesis', {
      value: {
        getVoices: () => [voice],
        addEventListener() {},
        removeEventListener() {},
        cancel() {},
        speak: (u: { text: string }) => void spoken.push(u.text),
      },
    })
    Object.defineProperty(globalThis, 'SpeechSynthesisUtterance', {
      value: class {
        text: string
        constructor(text: string) {
          this.text = text
        }
      },
    })
  })
  const site = await openDemo(page)
  await openDesk(page, site, 'stay/index.html', 'galley')
  await page.getByRole('button', { name: 'Read aloud' }).click()
  await expect(page.getByRole('button', { name: 'Stop reading' })).toBeVisible()
  const spoken = await page.evaluate(() => (globalThis as unknown as { spoken: string[] }).spoken)
  expect(spoken[2]).toBe('Stay in a lighthouse: the keeper’s cottage')
  await page.getByRole('button', { name: 'Stop reading' }).click()
  // A page in a language that it has no voice for says so.
  await openDesk(page, site, 'da/index.html', 'galley')
  await expect(page.getByRole('button', { name: 'Read aloud: no voice here' })).toBeDisabled()
})
