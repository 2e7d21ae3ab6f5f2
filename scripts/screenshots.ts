/** Makes docs/screenshots/ anew from the demo data, at 1280 x 800. Run after `npm run build`; look at each picture. */
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { launch, serve } from '../tests/fixtures/chromium.ts'

const root = join(import.meta.dirname, '..')
const out = join(root, 'docs/screenshots')
const { address, stop } = await serve(4474, { KEEN_QUILL_DEMO: '1' })
const browser = await launch()

async function shot(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready.then(() => undefined))
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(out, `${name}.png`) })
}

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  await page.getByRole('link', { name: 'Open the ledger' }).waitFor()
  await shot(page, 'shelf')
  await page.getByRole('link', { name: 'Open the ledger' }).click()
  await page.getByTestId('what-is-left').waitFor()
  await shot(page, 'ledger')
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  const desk = async (path: string, sheet: string) => {
    await page.goto(`${address}/sites/${site}/desk?page=${encodeURIComponent(path)}&sheet=${sheet}`)
    await page.waitForSelector('[data-testid=desk][data-ready=true]')
  }
  await desk('shop/index.html', 'snippet')
  await page.getByTestId('title').fill('The Lighthouse Shop: Charts, Lamps and a Fog Horn')
  await page.getByRole('button', { name: 'Approve' }).click()
  await desk('evenings/lamp-lighting.html', 'snippet')
  await page
    .getByTestId('description')
    .fill(
      'Climb the tower with the keeper, see the old lamp lit, and walk home by its beam. Lamp-lighting evenings run every Friday from October to March; boats leave at five.',
    )
  await page.waitForTimeout(300)
  await shot(page, 'desk-snippet')
  await desk('stories/last-keeper.html', 'snippet')
  await page.getByTestId('drawer-takes').getByRole('button').first().click()
  await page.getByTestId('title').fill('The Last Lighthouse Keeper and the Clock She Took Home')
  await page.keyboard.press('Alt+t')
  await page.getByTestId('title').blur()
  await page.getByTestId('take').nth(2).waitFor()
  await page.getByTestId('takes-description').scrollIntoViewIfNeeded()
  await desk('tours/index.html', 'snippet')
  await page.getByTestId('drawer-takes').getByRole('button').first().click()
  await page.getByTestId('slug').fill('guided-tours')
  await page.getByTestId('slug').blur()
  await page.getByTestId('slug-effect').waitFor()
  await page.getByText('Show all of them').click()
  await page.getByText('What changes elsewhere').scrollIntoViewIfNeeded()
  await page.goto(`${address}/sites/${site}/keywords?topic=lighthouse+tours`)
  await page.getByRole('button', { name: /^Keep all/ }).click()
  await page.locator('[data-saved=saved]').waitFor()
  await shot(page, 'keywords-find')
  await page.goto(`${address}/sites/${site}/keywords?view=map`)
  await page.getByTestId('clashes').locator('summary').click()
  await page.getByTestId('clashes').locator('li').first().waitFor()
  await shot(page, 'keywords-map')
  await desk('stay/index.html', 'links')
  await page.getByText(/from \d+ pages/).waitFor()
  await page.getByText('To book a').waitFor()
  await shot(page, 'desk-links')
  await desk('tours/index.html', 'line-up')
  await page.getByTestId('our-result').waitFor()
  await page.getByRole('button', { name: 'Put ours at 2' }).click()
  await shot(page, 'desk-line-up')
  await desk('stay/index.html', 'galley')
  await page.getByTestId('lead-ends').waitFor()
  await page.locator('[data-block]').nth(1).getByRole('button').click()
  await shot(page, 'desk-galley')
  await page.goto(`${address}/sites/${site}/house-style`)
  await page.getByLabel('The site’s name in titles').fill('Farrowskerry Light')
  await page.getByLabel('The site’s name in titles').press('Enter')
  await page.getByTestId('pattern').fill('{page} | {site}')
  await page.getByTestId('pattern-preview').waitFor()
  await shot(page, 'house-style')
  await page.getByRole('button', { name: 'Discard the change' }).click()
  await desk('stories/fog-signal.html', 'outline')
  await shot(page, 'desk-outline')
  const margin = page.getByTestId('margin')
  await margin.getByRole('button', { name: 'Join into one H1' }).click()
  await margin.getByRole('button', { name: 'Close the gap' }).click()
  await margin.getByRole('button', { name: 'Remove it' }).click()
  await margin.getByRole('button', { name: 'Make it a paragraph' }).first().click()
  await page.waitForTimeout(300)
  await desk('kitchen/fish-stew.html', 'data')
  await page.getByRole('button', { name: 'Recipe', exact: true }).click()
  await page.getByTestId('block').waitFor()
  await page.waitForTimeout(5000)
  await shot(page, 'desk-data')
  await page.goto(`${address}/sites/${site}/structured-data`)
  await page.getByTestId('site-data').waitFor()
  await page.getByRole('button', { name: 'See what it would add' }).nth(1).click()
  await page.getByRole('button', { name: /^Add it to/ }).click()
  await page.waitForTimeout(6000)
  await page.locator('#whom').evaluate((e) => scrollTo(0, e.getBoundingClientRect().top + scrollY - 330))
  await shot(page, 'site-data')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await page.getByText(/^Undone: Publisher/).waitFor()
  await page.waitForTimeout(5000)
  await desk('contact.html', 'head')
  await page.getByLabel('Content of keywords').focus()
  await page.getByTestId('excerpt').waitFor()
  await shot(page, 'desk-head')
  await page.goto(`${address}/sites/${site}/templates`)
  await page.getByTestId('suggestion').first().getByRole('button').click()
  await page.getByTestId('template-preview-figures').waitFor()
  await page.goto(`${address}/sites/${site}/hand-off`)
  await page.locator('[data-path]').first().waitFor()
  await shot(page, 'hand-off')
  await page.getByRole('button', { name: 'For approval' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Save the file/ }).click(),
  ])
  const answered = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const saved = join(tmpdir(), 'keen-quill-for-approval.html')
  await file.saveAs(saved)
  await answered.goto(`file://${saved}`)
  await answered.getByLabel('Yes').first().check()
  await shot(answered, 'approval')
  await page.goto(`${address}/intake?address=tidewatch.example`)
  await page.getByRole('button', { name: 'See what would be taken in' }).click()
  await page.getByRole('tab', { name: /left out/ }).click()
  await shot(page, 'intake')
  await page.goto(`${address}/sites/${site}/suggestions`)
  const rows = [
    'Page;Suggested title;Suggested description;Primary keyword;Note',
    '/courses/morse.html;Morse Code Course: Send a Signal over a Mile of Water;;morse code course;Says what it is',
    '/evenings/;Winter Evenings at the Lighthouse: Lamp, Storm and Song;Winter evenings from October to March: the old lamp lit on Fridays, storms watched, songs sung, and the boat home at nine.;winter evenings;',
    '/stay/;A Week in the Keeper’s Lighthouse Cottage on Farrowskerry, with Stove and Sea on Three Sides;;;Long, but lovely',
  ].join('\n')
  await page
    .getByTestId('suggestions-input')
    .setInputFiles({ name: 'suggestions.csv', mimeType: 'text/csv', buffer: Buffer.from(rows) })
  await page.getByRole('button', { name: /^Look at suggestions/ }).click()
  await page.getByTestId('suggestion').first().waitFor()
  await page.waitForTimeout(1000)
  await shot(page, 'suggestions')
  for (const [path, title] of [
    ['courses/knots.html', 'Knot Course for Beginners: Eight Knots in a Day'],
    ['crossings/timetable.html', 'Crossing Timetable: Boats to Farrowskerry'],
    ['visit/with_children.html', 'A Lighthouse with Children: a Day in the Petrel'],
  ] as const) {
    await desk(path, 'snippet')
    await page.getByTestId('title').fill(title)
    await page.getByTestId('title').blur()
    await page.waitForTimeout(400)
  }
  await page.goto(address)
  await page.getByRole('combobox', { name: /Invented sites/ }).click()
  await page.getByRole('option', { name: /weeks later/ }).click()
  await page.goto(`${address}/intake?again=${site}`)
  await page.getByRole('button', { name: 'See what would be taken in' }).click()
  await page.getByRole('button', { name: /^Take in/ }).click()
  await page.getByRole('heading', { name: 'Taken in again' }).waitFor()
  await shot(page, 'taken-again')
  await page.getByRole('button', { name: 'Undo taking in again' }).click()
  await page.getByRole('button', { name: 'Go back' }).click()
  await page.getByText('Do it again').waitFor()
  await page.emulateMedia({ colorScheme: 'dark' })
  await desk('stories/last-keeper.html', 'snippet')
  await shot(page, 'desk-dark')
} finally {
  await browser.close()
  stop()
}
