/** Structured data in the real interface: picked, filled from the page, completed, seen in the result, handed off, checked. */
import { expect, test } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  checkAccess,
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

const root = join(import.meta.dirname, '../..')
interface Report {
  files: {
    blocks: {
      types: string[]
      features: { feature: string; eligible: boolean }[]
      marks: { rule: string; severity: string }[]
    }[]
  }[]
}
function checkData(name: string, bytes: Uint8Array): Report {
  const file = join(mkdtempSync(join(tmpdir(), 'quill-')), name)
  writeFileSync(file, bytes)
  const out = execFileSync(process.execPath, ['scripts/quill.mjs', 'check-data', file, '--format', 'json'], {
    cwd: root,
    encoding: 'utf8',
  })
  return JSON.parse(out) as Report
}

test('pick, fill, complete, see the result, hand off, check the file with quill', async ({ page }) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'shop/fog-horn-recordings.html', 'data')
  await expect(page.getByRole('heading', { name: 'No structured data yet' })).toBeVisible()
  await page.getByRole('button', { name: 'Product', exact: true }).click()
  const feature = page.locator('[data-feature="Product"]')
  await expect(feature).toHaveAttribute('data-eligible', 'true')
  await expect(page.getByLabel('Price', { exact: true })).toHaveValue('4')
  await expect(page.getByText('From the first heading, line')).toBeVisible()
  // Completed: one of what results can use, and one by search.
  await page.getByRole('button', { name: 'brand', exact: true }).click()
  await page.getByLabel('Add brand').selectOption('+Brand')
  await page.getByLabel('Name', { exact: true }).nth(1).fill('Farrowskerry Light')
  await page.getByLabel('Name', { exact: true }).nth(1).press('Enter')
  await page.getByRole('button', { name: 'Add another property …' }).click()
  await page.getByLabel('Find a property of Product').fill('colour')
  await page
    .getByTestId('properties')
    .getByRole('button', { name: /^Color The color/ })
    .click()
  const colour = page.getByLabel('Color', { exact: true })
  await colour.fill('black')
  await colour.press('Enter')
  await expect(colour).toHaveValue('black')
  await saved(page)
  await page.getByRole('button', { name: 'See it in the result' }).click()
  await page.getByLabel('price', { exact: true }).check()
  await expect(page.getByText('£4').first()).toBeVisible()
  await expect(page.getByText('Search engines decide whether to show any of it.')).toBeVisible()

  const file = (await wholeZip(page, site))['shop/fog-horn-recordings.html']!
  const html = Buffer.from(file).toString()
  const [, json] = /<script type="application\/ld\+json">\n([\s\S]*?)\n<\/script>/.exec(html)!
  expect(JSON.parse(json!)).toMatchObject({
    '@type': 'Product',
    name: 'Fog-horn recordings',
    brand: { '@type': 'Brand', name: 'Farrowskerry Light' },
    color: 'black',
    offers: {
      '@type': 'Offer',
      price: '4',
      priceCurrency: 'GBP',
      availability: 'https://schema.org/InStock',
    },
  })
  const [block] = checkData('fog-horn-recordings.html', file).files[0]!.blocks
  expect(block).toMatchObject({ types: ['Product'], features: [{ feature: 'Product', eligible: true }] })
  expect(block!.marks.filter((m) => m.rule !== 'data-recommended')).toEqual([])
  expect(problems).toEqual([])
})

test('values follow the page’s text, until they are written otherwise; undo takes each step back', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'visit/questions.html', 'data')
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await page.getByRole('button', { name: 'Questions and answers' }).click()
  const names = page.getByLabel('Name', { exact: true })
  await expect(names.first()).toHaveValue('May dogs come?')
  await expect(page.locator('[data-feature="FAQPage"]')).toHaveAttribute('data-eligible', 'true')
  await expect(page.locator('[data-feature="FAQPage"]')).toContainText('Since 2023-08')
  await names.nth(1).fill('Is there a toilet?')
  await saved(page)
  await openDesk(page, site, 'visit/questions.html', 'outline')
  for (const [heading, words] of [
    [/^May dogs come/, 'May dogs and cats come?'],
    [/^Are there toilets/, 'Are there baths?'],
  ] as const) {
    await page.getByRole('treeitem', { name: heading }).focus()
    await page.keyboard.press('Enter')
    await page.getByLabel('The heading’s words').fill(words)
    await page.keyboard.press('Enter')
  }
  await saved(page)
  await page.getByRole('tab', { name: 'Data' }).click()
  await expect(names.first()).toHaveValue('May dogs and cats come?')
  // What was written by hand is no longer the page's, and the margin says so.
  await expect(names.nth(1)).toHaveValue('Is there a toilet?')
  await expect(page.locator('[data-rule="data-unseen"]')).toHaveCount(1)
  await page.getByRole('tab', { name: 'Outline' }).click()
  await page.getByRole('treeitem', { name: /^May dogs and cats come/ }).focus()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.getByRole('tab', { name: 'Data' }).click()
  await expect(names.first()).toHaveValue('May dogs come?')
  await page.keyboard.press('Control+z')
  await expect(names.nth(1)).toHaveValue('Are there toilets?')
  await page.keyboard.press('Control+z')
  await expect(page.getByText('A block of the source has been removed.')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Search engines cannot read this block:')).toBeVisible()
})

test('JSON beside the fields, both ways; what is no JSON is kept and named', async ({ page }) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'visit/questions.html', 'data')
  await page.getByRole('button', { name: 'Mend it in the JSON' }).click()
  const editor = page.getByLabel('The block as JSON')
  await expect(editor).toContainText('"FAQPage"')
  await expect(page.getByTestId('json').getByRole('status')).toContainText(
    'There is a comma before the closing bracket',
  )
  await editor.fill(
    '{"@context":"https://schema.org","@type":"Event","name":"Lamp lighting","startDate":"2026-12-04","keywords":["a","b"]',
  )
  await expect(page.getByTestId('json').getByRole('status')).toContainText(
    'A comma or a closing brace was expected',
  )
  await saved(page)
  // Half-typed JSON survives leaving the application and coming back.
  await page.reload()
  await page.getByRole('button', { name: 'Mend it in the JSON' }).click()
  await expect(editor).toContainText('"keywords":["a","b"]')
  await editor.press('Control+End')
  await editor.pressSequentially('}')
  await expect(page.getByTestId('json').getByRole('status')).toContainText('Valid JSON')
  // Undo is the site's own, in the editor and in a field that is being typed in.
  await editor.press('Control+z')
  await expect(page.getByTestId('json').getByRole('status')).toContainText(
    'A comma or a closing brace was expected',
  )
  await editor.press('Control+Shift+z')
  await expect(page.getByTestId('json').getByRole('status')).toContainText('Valid JSON')
  await page.getByLabel('Name', { exact: true }).fill('Another name')
  await expect(editor).toContainText('"name":"Another name"')
  await page.getByLabel('Name', { exact: true }).press('Control+z')
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Lamp lighting')
  await expect(editor).toContainText('"name":"Lamp lighting"')
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Lamp lighting')
  await page.getByLabel('Name', { exact: true }).fill('Lamp lighting at dusk')
  await expect(editor).toContainText('"name":"Lamp lighting at dusk","startDate":"2026-12-04"')
  // Order in a list, and a date with its time.
  await page.getByRole('button', { name: 'Keywords 1 down' }).click()
  await expect(editor).toContainText('"keywords":["b","a"]')
  await page.getByLabel('Start date, time of day').fill('17:30')
  await expect(editor).toContainText('"startDate":"2026-12-04T17:30"')
  await page.getByRole('button', { name: 'Remove Keywords 1' }).click()
  await expect(editor).toContainText('"keywords":["a"]')
  expect(problems).toEqual([])
})

test('things of the site are pointed to, and what points to nothing is said', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'stories/fresnel-lens.html', 'data')
  await expect(page.getByText('not described on this site')).toBeVisible()
  await expect(page.locator('[data-rule="data-dangling"]')).toHaveCount(1)
  await page.getByRole('button', { name: 'Remove Publisher' }).click()
  await page.getByRole('button', { name: 'Add another property …' }).first().click()
  await page.getByLabel('Find a property of Article').fill('publisher')
  await page
    .getByTestId('properties')
    .getByRole('button', { name: /^Publisher The/ })
    .click()
  await page.getByLabel('Add publisher').selectOption('#https://farrowskerry.example/#trust')
  await expect(page.getByText('NGO, described on this site')).toBeVisible()
  await expect(page.locator('[data-rule="data-dangling"]')).toHaveCount(0)
})

const inMarkUp = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Storm lamp</title></head><body><main>
<div itemscope itemtype="https://schema.org/Product"><h1 itemprop="name">Storm lamp</h1><img itemprop="image" src="/lamp.jpg" alt="The lamp">
<div itemprop="offers" itemscope itemtype="https://schema.org/Offer"><span itemprop="price" content="85.00">£85</span><meta itemprop="priceCurrency" content="GBP"></div></div>
<div vocab="https://schema.org/" typeof="Event"><b property="name">Lamp lighting</b> <time property="startDate" datetime="2026-12-04">4 December 2026</time></div>
<p property="og:title">Not a thing</p></main></body></html>`

test('microdata and RDFa are shown as the same things, and written anew as JSON-LD', async ({ page }) => {
  const problems = watchConsole(page)
  await openShelf(page)
  await takeInZip(page, 'lamp.zip', zipOf({ 'index.html': inMarkUp }), 'https://lamps.example/')
  await page
    .getByRole('link', { name: 'lamps.example' })
    .or(page.getByTestId('what-is-left'))
    .first()
    .waitFor()
  if (!(await page.getByTestId('what-is-left').isVisible()))
    await page.getByRole('link', { name: /lamp/i }).first().click()
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'index.html', 'data')
  const markup = page.getByTestId('in-markup')
  await expect(markup).toContainText('as microdata and RDFa')
  await expect(markup.getByRole('heading', { name: 'Product Storm lamp' })).toBeVisible()
  await expect(markup).toContainText('https://lamps.example/lamp.jpg')
  await expect(markup.getByRole('heading', { name: 'Event Lamp lighting' })).toBeVisible()
  await expect(markup.locator('input, textarea')).toHaveCount(0)
  await markup.getByRole('button', { name: 'Rewrite as JSON-LD' }).click()
  await expect(page.getByTestId('block')).toHaveCount(1)
  await expect(page.getByLabel('Price', { exact: true })).toHaveValue('85.00')
  await expect(page.locator('[data-feature="Product"]')).toHaveAttribute('data-eligible', 'true')
  await page.getByRole('button', { name: 'JSON', exact: true }).click()
  const editor = page.getByLabel('The block as JSON')
  await expect(editor).toContainText('"startDate": "2026-12-04"')
  await checkAccess(page, page.url(), 'day')
  expect(problems).toEqual([])
})

test('one step for every page: breadcrumbs previewed, added, counted, taken back', async ({ page }) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await page.getByRole('link', { name: 'Data', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Structured data on Farrowskerry Light' })).toBeVisible()
  await expect(page.getByTestId('site-data-marks').getByRole('listitem')).toHaveCount(2)
  await page.getByRole('button', { name: 'See what it would add' }).first().click()
  await expect(page.getByTestId('data-step-figures')).toContainText(
    '43 pages would get it; 2 pages would stay as they are',
  )
  await page.getByTestId('data-step').getByRole('checkbox').first().uncheck()
  await page.getByRole('button', { name: 'Add it to 42 pages' }).click()
  await expect(page.getByRole('button', { name: /^Breadcrumb list \(43\)/ })).toBeVisible()
  await openDesk(page, site, 'kitchen/seed-cake.html', 'data')
  await expect(page.locator('[data-feature="BreadcrumbList"]')).toHaveAttribute('data-eligible', 'true')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-feature="BreadcrumbList"]')).toHaveCount(0)
  await go(page, `/sites/${site}/structured-data`)
  await expect(page.getByRole('button', { name: /^Breadcrumb list \(1\)/ })).toBeVisible()
  expect(problems).toEqual([])
})

test(
  'axe-core finds nothing on the Data sheet and on the site’s data, by day and by night',
  { tag: '@long' },
  async ({ page }) => {
    const site = await openDemo(page)
    await openDesk(page, site, 'courses/knots.html', 'data')
    await page.getByRole('button', { name: 'Something else …' }).click()
    await page.getByLabel('Find a type').fill('boat')
    await expect(page.getByTestId('types').getByRole('listitem').first()).toContainText('Boat')
    await checkAccess(page)
    await openDesk(page, site, 'kitchen/fish-stew.html', 'data')
    await page.getByRole('button', { name: 'Recipe', exact: true }).click()
    await expect(page.getByTestId('block')).toBeVisible()
    await checkAccess(page, page.url(), 'day')
    await openDesk(page, site, 'visit/questions.html', 'data')
    await page.getByRole('button', { name: 'JSON', exact: true }).click()
    await expect(page.locator('.cm-editor')).toBeVisible()
    await checkAccess(page, page.url(), 'day')
    await openDesk(page, site, 'shop/lamps.html', 'data')
    await page.getByRole('button', { name: 'JSON', exact: true }).click()
    await expect(page.locator('.cm-editor')).toBeVisible()
    await checkAccess(page, page.url(), 'day')
    await go(page, `/sites/${site}/structured-data`)
    await expect(page.getByTestId('graph')).toBeVisible()
    await page.getByRole('button', { name: 'See what it would add' }).nth(1).click()
    await expect(page.getByRole('button', { name: /^Add it to 4\d pages/ })).toBeEnabled()
    await checkAccess(page)
  },
)
