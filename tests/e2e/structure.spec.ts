/** Outline, Head, comparison and rules for what recurs, in the real interface: by keyboard alone and by pointer. */
import { expect, test, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { readFileSync } from 'node:fs'
import {
  allPages,
  checkAccess,
  go,
  openDemo,
  openDesk,
  openShelf,
  saved,
  takeInZip,
  watchConsole,
  zipOf,
} from './helpers.ts'

const item = (page: Page, name: RegExp) => page.getByRole('treeitem', { name })
test('the outline by keyboard alone: sections in and out, alone, joined, removed, paragraphs and back, words, undo', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'stories/fog-signal.html', 'outline')
  await item(page, /^Menu/).focus()
  await page.keyboard.press('p')
  await expect(item(page, /^Menu, a paragraph, was H3/)).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(item(page, /^What the fog signal/)).toBeFocused()
  await page.keyboard.press('m')
  await expect(item(page, /^says/)).toHaveCount(0)
  await page.keyboard.press('m')
  await expect(item(page, /^What the fog signal says and why it stopped, H1/)).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await expect(item(page, /^The reed/)).toBeFocused()
  await page.keyboard.press('g')
  await expect(item(page, /^The reed/)).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Shift+Tab')
  await expect(item(page, /^One blast/)).toHaveAttribute('aria-level', '3')
  await expect(page.getByTestId('gap')).toHaveCount(0)
  await page.keyboard.press('ArrowDown')
  await expect(item(page, /^Empty heading/)).toBeFocused()
  await page.keyboard.press('Delete')
  await expect(item(page, /^Empty heading/)).toHaveCount(0)
  // A section moves whole; alone, what hangs below stays.
  await item(page, /^The last morning/).focus()
  await page.keyboard.press('Tab')
  await expect(item(page, /^Who turned it off/)).toHaveAttribute('aria-level', '4')
  await page.keyboard.press('Shift+Tab')
  await expect(item(page, /^Who turned it off/)).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('Alt+ArrowRight')
  await expect(item(page, /^The last morning/)).toHaveAttribute('aria-level', '3')
  await expect(item(page, /^Who turned it off/)).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('Control+z')
  await expect(item(page, /^The last morning/)).toHaveAttribute('aria-level', '2')
  await page.keyboard.press('ArrowLeft')
  await expect(item(page, /^Who turned it off/)).toHaveCount(0)
  await page.keyboard.press('ArrowRight')
  await expect(item(page, /^Who turned it off/)).toBeVisible()
  await page.keyboard.press('Enter')
  await page.getByLabel('The heading’s words').fill('The last morning of all')
  await page.keyboard.press('Enter')
  await expect(
    item(
      page,
      /^The last morning of all, H2, in main, has the keyword|^The last morning of all, H2, in main/,
    ),
  ).toBeFocused()
  await page.keyboard.press('3')
  await expect(item(page, /^The last morning of all/)).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('l')
  await expect(page.getByTestId('source')).toBeVisible()
  await page.goBack()
  await item(page, /^Opening hours/).focus()
  await page.keyboard.press('p')
  await expect(item(page, /^Opening hours, a paragraph, was H4, in footer/)).toBeFocused()
  await page.keyboard.press('h')
  await expect(item(page, /^Opening hours, H4/)).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.locator('#after-outline')).toBeFocused()
  await expect(
    page.locator('[data-rule="heading-skip"], [data-rule="h1-split"], [data-rule="heading-empty"]'),
  ).toHaveCount(0)
  expect(problems).toEqual([])
})

test('the tree is the same to who hears it: levels, landmarks, states, in the accessibility tree', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'crossings/weather.html', 'outline')
  const tree = await page.getByTestId('outline').ariaSnapshot()
  expect(tree).toContain('tree "Headings"')
  expect(tree).toMatch(
    /treeitem "Island weather, H1, in main, has the keyword, \d+ words" \[expanded\] \[level=1\] \[selected\]/,
  )
  expect(tree).toMatch(/treeitem "The forecast of last week, H2, in main, hidden, \d+ words" \[level=2\]/)
  await openDesk(page, site, 'tours/tower.html', 'outline')
  expect(await page.getByTestId('outline').ariaSnapshot()).toContain(
    'treeitem "Before you come, looks like a heading, in main"',
  )
})

test('the outline by pointer: dragged with its section, repaired from the margin after a look, a look-alike made a heading', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/tower.html', 'outline')
  const mark = page.locator('[data-rule="heading-look-alike"]')
  await mark.getByRole('button', { name: 'Preview' }).click()
  await expect(page.getByTestId('edit-preview')).toContainText(
    '<h2 class="section-title">Before you come</h2>',
  )
  await page.keyboard.press('Escape')
  await mark.getByRole('button', { name: 'Make it an H2' }).click()
  await expect(item(page, /^Before you come, H2/)).toBeVisible()
  await expect(mark).toHaveCount(0)
  const box = (await item(page, /^Before you come/).boundingBox())!
  await page.mouse.move(box.x + 20, box.y + 12)
  await page.mouse.down()
  await page.mouse.move(box.x + 80, box.y + 12, { steps: 4 })
  await page.mouse.move(box.x + 20 + 102, box.y + 12, { steps: 4 })
  await page.mouse.up()
  await expect(item(page, /^Before you come/)).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('Control+z')
  await expect(item(page, /^Before you come/)).toHaveAttribute('aria-level', '2')
  await openDesk(page, site, 'kitchen/index.htm', 'outline')
  await page.getByRole('button', { name: 'Make it the subtitle' }).click()
  await expect(item(page, /^The first version, kept, a paragraph, was H2/)).toBeVisible()
})

test('a note names the selectors that address a changed tag', async ({ page }) => {
  await openShelf(page)
  await takeInZip(
    page,
    'look.zip',
    zipOf({
      'index.html':
        '<!doctype html><html lang=en><head><title>A look at things</title><link rel=stylesheet href="s.css"><style>main h3 { color: red }</style></head><body><main><h1>A</h1><h3 class=t>B</h3></main></body></html>',
      's.css': '.t { margin: 0 }\nh2.t,\nh5 { top: 0 }\n',
    }),
    'https://look.example/',
  )
  await allPages(page)
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'index.html', 'outline')
  await page.getByTestId('margin').getByRole('button', { name: 'Close the gap' }).click()
  const notes = page.getByTestId('look-notes')
  await expect(notes).toContainText('main h3 in the page’s own style, line 1')
  await expect(notes).toContainText('h2.t in s.css, line 2')
  await expect(notes).not.toContainText('h5')
})

test('Head: language, robots, metas, links, code, pictures, ids and comments changed; the file has just that', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const html = [
    '<html>',
    '<head>',
    '  <title>A page with a head to mend</title>',
    '  <meta name="author" content="Ada">',
    '  <link rel="icon" href="/old.svg">',
    '</head>',
    '<body>',
    '  <nav><a href="/">Home</a></nav>',
    '  <!-- TODO: prices -->',
    '  <main><h1>A</h1><p id="a">x</p><p id="a">y</p><img src="lamp.svg"><img src="b.png" alt="b"></main>',
    '</body>',
    '</html>',
    '',
  ].join('\n')
  await openShelf(page)
  await takeInZip(
    page,
    'head.zip',
    zipOf({
      'index.html': html,
      'lamp.svg': '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>',
    }),
    'https://head.example/',
  )
  await allPages(page)
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'index.html', 'head')
  const head = page.getByTestId('head')
  await head.getByLabel('Language').fill('no!')
  await expect(head.getByText('A language tag such as en or en-GB is expected.')).toBeVisible()
  await head.getByLabel('Language').fill('en')
  await head.getByRole('button', { name: 'Add the doctype' }).click()
  await head.getByRole('button', { name: 'Declare UTF-8' }).click()
  await head.getByLabel('Viewport').fill('width=device-width')
  await head.getByLabel('noarchive').check()
  await head.getByLabel('Content of author').fill('Ada & Sons')
  await head.getByLabel('Name of a new meta').fill('theme-color')
  await head.getByLabel('Content of a new meta').fill('#ece6da')
  await head.getByRole('button', { name: 'Add', exact: true }).click()
  await head.getByLabel('Address of icon').fill('/new.svg')
  await head.getByRole('textbox', { name: 'Extra code' }).fill('<div>no</div>')
  await expect(head.getByText('<div> is not allowed in the head')).toBeVisible()
  await head
    .getByRole('textbox', { name: 'Extra code' })
    .fill('<meta name="color-scheme" content="light dark">')
  await expect(head.getByText('1 line at the end of the head.')).toBeVisible()
  await head.getByRole('button', { name: 'Add one' }).click()
  await expect(head.locator('img')).toHaveCount(1)
  await head.getByLabel(/Alternative text of lamp\.svg/).fill('The lamp')
  await page.keyboard.press('Enter')
  await expect(head.getByLabel(/Alternative text of b\.png/)).toBeFocused()
  await expect(page.getByTestId('excerpt')).toContainText('b.png')
  await head
    .getByLabel(/^Id a, line/)
    .nth(1)
    .fill('b')
  await head.locator('li', { hasText: 'TODO: prices' }).getByRole('button', { name: 'Remove' }).click()
  await saved(page)
  await checkAccess(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download this page' }).click(),
  ])
  const text = readFileSync(await download.path(), 'utf8')
  expect(text.split('\n')).toEqual([
    '<!doctype html>',
    '<html lang="en">',
    '<head>',
    '<meta charset="utf-8">',
    '  <title>A page with a head to mend</title>',
    '  <meta name="author" content="Ada &amp; Sons">',
    '  <link rel="icon" href="/new.svg">',
    ...text.split('\n').slice(7, 11),
    '</head>',
    '<body>',
    '<a href="#main">Skip to main content</a>',
    '  <nav><a href="/">Home</a></nav>',
    '  <main id="main"><h1>A</h1><p id="a">x</p><p id="b">y</p><img src="lamp.svg" alt="The lamp"><img src="b.png" alt="b"></main>',
    '</body>',
    '</html>',
    '',
  ])
  for (const added of [
    'name="viewport" content="width=device-width"',
    'name="robots" content="noarchive"',
    'name="theme-color"',
    'name="color-scheme"',
  ])
    expect(text).toContain(added)
  expect(problems).toEqual([])
})

test('a rule for what recurs: suggested, previewed, a page left out, kept, holding in the hand-off, undone', async ({
  page,
}) => {
  const site = await openDemo(page)
  await go(page, `/sites/${site}/templates`)
  const suggestion = page.getByTestId('suggestion').filter({ hasText: 'section-title' })
  await expect(suggestion).toContainText('Paragraphs with class “section-title” become H2')
  await suggestion.getByRole('button').click()
  await expect(page.getByTestId('template-preview-figures')).toHaveText('3 pages would change.')
  await expect(page.getByTestId('template-preview')).toContainText('Before you come')
  await page.getByRole('checkbox', { name: /night-walk/ }).uncheck()
  await expect(page.getByTestId('template-preview-figures')).toHaveText('2 pages would change.')
  await checkAccess(page, page.url(), 'day')
  await page.getByRole('button', { name: /^Apply to 2 pages/ }).click()
  await expect(page.getByTestId('kept-rule')).toContainText('on 2 pages, 1 left as they are')
  await openDesk(page, site, 'tours/tower.html', 'outline')
  await expect(item(page, /^Before you come, H2/)).toBeVisible()
  // Where an editor decides otherwise, the page’s own word goes before the rule’s.
  await item(page, /^Before you come/).focus()
  await page.keyboard.press('Tab')
  await expect(item(page, /^Before you come/)).toHaveAttribute('aria-level', '3')
  await openDesk(page, site, 'tours/night-walk.html', 'outline')
  await expect(item(page, /^Before you come, looks like a heading/)).toBeVisible()
  await go(page, `/sites/${site}/hand-off`)
  await expect(page.locator('[data-path="tours/lens-room.html"]')).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Whole site as ZIP' }).click(),
  ])
  const files = unzipSync(new Uint8Array(readFileSync(await download.path())))
  const text = (path: string) => new TextDecoder().decode(files[path])
  expect(text('tours/lens-room.html')).toContain('<h2 class="section-title">Before you come</h2>')
  expect(text('tours/tower.html')).toContain('<h3 class="section-title">Before you come</h3>')
  expect(text('tours/night-walk.html')).toContain('<p class="section-title">Before you come</p>')
  await page.locator('body').press('Control+z')
  await page.locator('body').press('Control+z')
  await expect(page.locator('[data-path="tours/lens-room.html"]')).toHaveCount(0)
})

test('two pages’ structures side by side: of the site, and pasted; what is pasted never runs', async ({
  page,
}) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/tower.html', 'outline')
  const compare = page.getByTestId('compare')
  await page.getByTestId('compare-with').selectOption('tours/lens-room.html')
  await expect(compare.locator('table')).toContainText('The lens room tour')
  await expect(compare.getByRole('row', { name: /“tower tour” stands in/ })).toContainText(
    'title, description, H1',
  )
  await checkAccess(page, page.url(), 'day')
  await compare.getByRole('button', { name: 'pasted source' }).click()
  await page
    .getByLabel('Source of the other page')
    .fill(
      '<title>Another tower tour</title><h1>Their tour</h1><script>window.pwned = 1</script><img src=x onerror="window.pwned = 1"><h3>Deep</h3>',
    )
  await page.getByRole('button', { name: 'Compare', exact: true }).click()
  await expect(compare.locator('table')).toContainText('Their tour')
  expect(await page.evaluate(() => 'pwned' in window)).toBe(false)
  expect(problems).toEqual([])
})

test('a page of 2,000 headings: the tree changes at once, only what is near is drawn, the newest wish holds', async ({
  page,
}) => {
  const sections = Array.from(
    { length: 2000 },
    (_, i) => `<h${2 + (i % 3)}>Part ${i}</h${2 + (i % 3)}><p>Some words.</p>`,
  )
  await openShelf(page)
  await takeInZip(
    page,
    'long.zip',
    zipOf({
      'index.html': `<!doctype html><html lang=en><title>A very long page of parts</title><main><h1>Parts</h1>${sections.join('')}</main>`,
    }),
    'https://long.example/',
  )
  await allPages(page)
  const site = /sites\/([^/]+)/.exec(page.url())![1]!
  await openDesk(page, site, 'index.html', 'outline')
  expect(await page.getByRole('treeitem').count()).toBeLessThan(200)
  await item(page, /^Part 3,/).focus()
  await page.keyboard.press('Alt+ArrowRight')
  await page.keyboard.press('Alt+ArrowRight')
  await page.keyboard.press('Alt+ArrowRight')
  await expect(item(page, /^Part 3,/)).toHaveAttribute('aria-level', '5')
  await page.keyboard.press('End')
  await expect(item(page, /^Part 1999,/)).toBeFocused()
  await expect(item(page, /^Part 1999,/)).toHaveAttribute('aria-setsize', '2001')
})
