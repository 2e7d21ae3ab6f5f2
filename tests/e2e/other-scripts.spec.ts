/** Pages in other scripts: they read their own way in result, outline and galley, and what is not certain is said. */
import { expect, test } from '@playwright/test'
import {
  checkAccess,
  openDesk,
  openShelf,
  saved,
  takeInZip,
  watchConsole,
  wholeZip,
  zipOf,
} from './helpers.ts'

const page = (lang: string, title: string, description: string, h1: string, text: string) =>
  `<!doctype html><html lang="${lang}" dir="rtl"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${title}</title><meta name="description" content="${description}"></head><body><main><h1>${h1}</h1><p>${text}</p></main></body></html>`
const arabic = page(
  'ar',
  'منارة الجزيرة: جولات مع مرشد إلى أعلى البرج وغرفة العدسة طوال أيام الأسبوع وفي الأعياد أيضًا',
  'زوروا منارة الجزيرة: جولات مع مرشد، ورحلات بالقارب من الميناء القديم.',
  'منارة الجزيرة',
  'تقف المنارة على الصخرة منذ عام 1874.',
)
const hebrew = page(
  'he',
  'מגדלור האי: סיורים מודרכים',
  'בקרו במגדלור האי: סיורים מודרכים, שיט מהנמל הישן וערבי הדלקה.',
  'מגדלור האי',
  'המגדלור עומד על הסלע משנת 1874.',
)

test('right-to-left pages read from the right, are edited so, and are handed off as typed', async ({
  page: tab,
}) => {
  const problems = watchConsole(tab)
  await openShelf(tab)
  await takeInZip(
    tab,
    'manara.zip',
    zipOf({ 'index.html': arabic, 'he.html': hebrew }),
    'https://manara.example/',
  )
  await expect(tab.getByTestId('what-is-left')).toBeVisible()
  const site = /sites\/([^/]+)/.exec(tab.url())![1]!
  const direction = (selector: string) =>
    tab
      .locator(selector)
      .first()
      .evaluate((element) => getComputedStyle(element).direction)
  for (const path of ['index.html', 'he.html']) {
    await openDesk(tab, site, path, 'snippet')
    for (const shown of ['title', 'description', 'narrow-title'])
      expect(await direction(`[data-testid=${shown}]`), `${path} ${shown}`).toBe('rtl')
    // What the shipped font lacks is said to be measured otherwise; Hebrew it has.
    const figures = tab.getByTestId('title-px').locator('..')
    if (path === 'he.html') await expect(figures).not.toContainText(/own font|estimated/)
    else await expect(figures).toContainText(/\d+ (?:in this browser’s own font|estimated)/)
    if (path === 'he.html') continue
    await openDesk(tab, site, path, 'galley')
    await expect(tab.getByRole('button', { name: /, edit$/ }).first()).toBeVisible()
    for (const block of await tab.getByRole('button', { name: /, edit$/ }).all())
      expect(await block.evaluate((element) => getComputedStyle(element).direction)).toBe('rtl')
    await openDesk(tab, site, path, 'outline')
    expect(
      await tab
        .getByRole('treeitem')
        .first()
        .locator('[dir=auto]')
        .evaluate((e) => getComputedStyle(e).direction),
    ).toBe('rtl')
  }
  await openDesk(tab, site, 'index.html', 'snippet')
  await checkAccess(tab, 'an Arabic page')
  await expect(tab.locator('[data-rule=title-cut]')).toBeVisible()
  await tab.getByTestId('title').fill('منارة الجزيرة وجولاتها')
  await expect(tab.locator('[data-rule=title-cut]')).toHaveCount(0)
  await saved(tab)
  const files = await wholeZip(tab, site)
  expect(new TextDecoder().decode(files['index.html'])).toBe(
    arabic.replace(/<title>[^<]*/, '<title>منارة الجزيرة وجولاتها'),
  )
  expect(new TextDecoder().decode(files['he.html'])).toBe(hebrew)
  expect(problems).toEqual([])
})
