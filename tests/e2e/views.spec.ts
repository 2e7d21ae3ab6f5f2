/** Ledger, outline, margin, approval, hand-off and help, by keyboard and by pointer; and axe-core on every view. */
import { expect, test } from '@playwright/test'
import { checkAccess, go, openDemo, openDesk, openShelf, saved, watchConsole } from './helpers.ts'

test('the ledger: filter by mark and by words, edit a cell from the keyboard, go on with Enter, put back with Escape', async ({
  page,
}) => {
  await openDemo(page)
  await page.getByRole('searchbox', { name: 'Find in the ledger' }).fill('samphire')
  await expect(page.locator('[data-path]')).toHaveCount(3)
  await page.getByRole('searchbox', { name: 'Find in the ledger' }).fill('')
  await page.getByRole('combobox', { name: 'Mark' }).click()
  await page.getByRole('option', { name: 'Several pages have the same title' }).click()
  await expect(page.locator('[data-path]')).toHaveCount(2)
  await page.locator('[data-cell="0-1"]').focus()
  await page.keyboard.press('Enter')
  await page.getByTestId('cell-title').fill('Lens Room Tour: an Hour Among the Prisms')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-cell="1-1"]')).toBeFocused()
  await expect(page.locator('[data-path="tours/tower.html"]')).toContainText('drafted')
  await page.keyboard.press('Enter')
  await page.getByTestId('cell-title').fill('Never mind')
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-path="tours/lens-room.html"]')).toContainText('Lighthouse Tower Tour')
  await saved(page)
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/desk\?page=tours%2Flens-room/)
  // The other page's title has changed, so this one's is no longer repeated.
  await expect(page.locator('[data-testid=desk][data-ready=true]')).toBeVisible()
  await expect(page.locator('[data-rule="title-duplicate"]')).toHaveCount(0)
})

test('a mark is let stand with a reason, stays visible, and is back when its figure changes', async ({
  page,
}) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'shop/index.html')
  const mark = page.locator('[data-rule="title-short"]')
  await mark.getByRole('button', { name: 'Stet' }).click()
  await page.getByLabel('Let it stand, because …').fill('It is a shop.')
  await page.getByRole('button', { name: 'Stet: let it stand' }).click()
  await expect(mark).toContainText('“It is a shop.”')
  await page.reload()
  await expect(mark).toContainText('Stet (let it stand)')
  await page.getByTestId('title').fill('Our shop')
  await expect(mark).toContainText('It was let stand before')
})

test('approval: approved, drafted again by an edit, sent back with a word', async ({ page }) => {
  const site = await openDemo(page)
  await openDesk(page, site, 'tours/tower.html')
  await page.keyboard.press('Alt+a')
  await expect(page.getByTestId('state')).toContainText('approved')
  await page.getByTestId('title').fill('Lighthouse tower tour: a hundred and fourteen steps')
  await expect(page.getByTestId('state')).toContainText('drafted')
  await page.getByRole('button', { name: 'Send back' }).click()
  await page.getByLabel('Send it back with a note').fill('Say how many steps in figures.')
  await page.locator('form').getByRole('button', { name: 'Send back' }).click()
  await expect(page.getByText('Say how many steps in figures.')).toBeVisible()
})

test('stepping through pages, copying fields, the list of keys', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const site = await openDemo(page)
  await openDesk(page, site, 'kitchen/fish-stew.html')
  await page.keyboard.press('Alt+1')
  await expect(page.getByText('Title copied.')).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
    'Keeper’s Fish Stew with Samphire, in Half an Hour',
  )
  await page.keyboard.press('Alt+ArrowDown')
  await expect(page).toHaveURL(/samphire-pickle/)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
})

test('no view is wider than a window of 390 px, and nothing lies on top of a site’s name on the shelf', async ({
  page,
}) => {
  const site = await openDemo(page)
  await page.setViewportSize({ width: 390, height: 800 })
  const fits = async (view: string, there: string) => {
    await expect(page.locator(there).first(), view).toBeVisible()
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth), view).toBe(390)
  }
  for (const [sheet, there] of [
    ['snippet', '[data-testid=title]'],
    ['line-up', '[data-testid=our-result]'],
    ['outline', '[role=treeitem]'],
    ['galley', '[data-testid=galley]'],
    ['links', '[aria-label="Links"]'],
    ['data', '[data-testid=block]'],
    ['head', '[data-part=images]'],
    ['source', '.cm-content'],
  ] as const) {
    await openDesk(page, site, 'stories/fresnel-lens.html', sheet)
    await fits(sheet, there)
  }
  for (const view of [
    ...['ledger', 'ledger?view=left', 'keywords', 'keywords?view=map', 'structured-data', 'templates'],
    ...['house-style', 'suggestions', 'review', 'hand-off', 'progress'],
  ]) {
    await go(page, `/sites/${site}/${view}`)
    await fits(view, 'main h1')
  }
  await go(page, '/')
  await fits('shelf', 'main h1')
  const name = page.getByRole('link', { name: 'Farrowskerry Light' })
  const action = page.getByRole('link', { name: 'Open the ledger' })
  const [box, below] = [await name.boundingBox(), await action.boundingBox()]
  expect(below!.y).toBeGreaterThanOrEqual(box!.y + box!.height)
})

test('axe-core finds nothing on shelf, ledger, desk and hand-off, by day and by night', async ({ page }) => {
  const problems = watchConsole(page)
  const site = await openDemo(page)
  await checkAccess(page, 'ledger')
  await page.locator('[data-cell="0-1"]').focus()
  await page.keyboard.press('Enter')
  await checkAccess(page, 'ledger, editing')
  for (const [path, sheet] of [
    ['evenings/lamp-lighting.html', 'snippet'],
    ['jobs/index.html', 'snippet'],
    ['stories/fog-signal.html', 'outline'],
    ['contact.html', 'head'],
    ['visit/questions.html', 'source'],
  ] as const) {
    await openDesk(page, site, path, sheet)
    await checkAccess(page, `desk, ${sheet}`)
  }
  await openDesk(page, site, 'shop/index.html')
  await page.getByTestId('title').fill('The lighthouse shop: charts, lamps and a horn')
  await saved(page)
  await page.getByRole('link', { name: /Review and hand-off/ }).click()
  await page.getByRole('button', { name: 'Hand-off', exact: true }).click()
  await expect(page.locator('[data-path="shop/index.html"]')).toBeVisible()
  await checkAccess(page, 'hand-off')
  await openShelf(page)
  await checkAccess(page, 'shelf')
  await page.getByRole('button', { name: /Paste a page/ }).click()
  await checkAccess(page, 'shelf, dialog')
  await page.goto('/about')
  await checkAccess(page, 'about')
  expect(problems).toEqual([])
})

test(
  'axe-core finds nothing on the desk’s drawers, the picture and the house style, by day and by night',
  { tag: '@long' },
  async ({ page }) => {
    const problems = watchConsole(page)
    const site = await openDemo(page)
    await openDesk(page, site, 'index.html')
    for (const drawer of ['takes', 'casing', 'instead', 'carriers'])
      await page.getByTestId(`drawer-${drawer}`).getByRole('button').first().click()
    await expect(page.getByTestId('take').first()).toBeVisible()
    await checkAccess(page, 'desk, all drawers open')
    await openDesk(page, site, 'tours/index.html')
    await page.getByTestId('slug').fill('shop')
    await expect(page.getByTestId('slug-refused')).toBeVisible()
    await checkAccess(page, 'desk, a slug that is taken')
    await page.getByTestId('slug').fill('tours-by-night')
    await expect(page.getByTestId('slug-effect')).toBeVisible()
    await checkAccess(page, 'desk, a slug that changes')
    await page.getByRole('button', { name: 'Picture …' }).click()
    await expect(page.getByTestId('approval-card')).toBeVisible()
    await checkAccess(page, 'picture for approval')
    await page.keyboard.press('Escape')
    await openDesk(page, site, 'tours/tower.html', 'outline')
    await page.getByTestId('compare-with').selectOption('tours/lens-room.html')
    await expect(page.getByTestId('compare').locator('table')).toBeVisible()
    await checkAccess(page, 'comparison')
    await go(page, `/sites/${site}/templates`)
    await page.getByTestId('suggestion').getByRole('button').click()
    await expect(page.getByTestId('template-preview-figures')).toBeVisible()
    await checkAccess(page, 'headings that recur')
    await go(page, `/sites/${site}/house-style`)
    await page.getByTestId('pattern').fill('{page} | {section}')
    await expect(page.getByTestId('pattern-preview')).toBeVisible()
    await page.getByText('Title', { exact: false }).and(page.locator('summary')).first().click()
    await page.getByLabel(/Addresses such as/).fill('/shop/*')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await checkAccess(page, 'house style')
    expect(problems).toEqual([])
  },
)
