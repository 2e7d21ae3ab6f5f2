import { readFileSync, readdirSync } from 'node:fs'
import { join, relative } from 'node:path'
import axe from 'axe-core'
import { expect, type Page } from '@playwright/test'
import { unzipSync, zipSync } from 'fflate'

export const DEMO = join(import.meta.dirname, '../../stand-ins/site')

/** All files of a folder by path. */
export function filesOf(folder: string): Map<string, Uint8Array> {
  const entries = readdirSync(folder, { recursive: true, withFileTypes: true }).filter((e) => e.isFile())
  return new Map(
    entries.map((e) => {
      const file = join(e.parentPath, e.name)
      return [relative(folder, file), new Uint8Array(readFileSync(file))] as const
    }),
  )
}

export const zipOf = (files: Record<string, string | Uint8Array>): Buffer =>
  Buffer.from(
    zipSync(
      Object.fromEntries(
        Object.entries(files).map(([p, c]) => [p, typeof c === 'string' ? new TextEncoder().encode(c) : c]),
      ),
    ),
  )

/** Fails on any error that the page writes to its console or throws. */
export function watchConsole(page: Page): string[] {
  const problems: string[] = []
  page.on('console', (m) => {
    if (m.type() === 'error') problems.push(m.text())
  })
  page.on('pageerror', (e) => problems.push(e.message))
  return problems
}

/**
 * axe-core finds nothing on the page as it stands: all its rules by day; by night, where nothing differs but colours,
 * contrast alone. Stages of a view whose colours are the view's own are looked at by day. What fades in to fade out again
 * is passed over.
 */
export async function checkAccess(
  page: Page,
  view = page.url(),
  when: 'day and night' | 'day' = 'day and night',
): Promise<void> {
  const found: string[] = []
  for (const scheme of when === 'day' ? (['light'] as const) : (['light', 'dark'] as const)) {
    await page.emulateMedia({ colorScheme: scheme })
    // What moves or fades in comes to its end; what goes on for ever has none.
    await page.evaluate(() =>
      Promise.all(
        document
          .getAnimations()
          .filter((a) => a.effect?.getComputedTiming().endTime !== Infinity)
          .map((a) => a.finished.catch(() => {})),
      ).then(() => {}),
    )
    const violations = await violationsOf(page, scheme === 'light' ? null : ['color-contrast'])
    for (const { id, nodes } of violations) found.push(`${view}, ${scheme}: ${id}: ${nodes.join(' ')}`)
  }
  await page.emulateMedia({ colorScheme: 'light' })
  expect(found).toEqual([])
}

/** What axe-core finds, brought into the page once. Style sheets are not fetched anew: no rule that is asked for reads them. */
async function violationsOf(page: Page, only: string[] | null): Promise<{ id: string; nodes: string[] }[]> {
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe.source)
  return page.evaluate(async (rules) => {
    const { run } = (globalThis as unknown as { axe: typeof axe }).axe
    const { violations } = await run(
      { exclude: ['[data-sonner-toaster]'] },
      {
        resultTypes: ['violations'],
        preload: false,
        iframes: false,
        ...(rules ? { runOnly: { type: 'rule' as const, values: rules } } : {}),
      },
    )
    return violations.map(({ id, nodes }) => ({ id, nodes: nodes.map((node) => node.html) }))
  }, only)
}

export async function openShelf(page: Page): Promise<void> {
  await page.goto('/')
  await page.waitForSelector('html[data-hydrated]')
}

/**
 * Goes to an address of the application: as its own links do where it is open, so that nothing is loaded anew (most of a
 * test's time would be), else by the address bar. Resolves when the view is drawn.
 */
export async function go(page: Page, address: string): Promise<void> {
  const within = await page.evaluate(async (to) => {
    const router = (globalThis as unknown as { __reactRouterDataRouter?: Router }).__reactRouterDataRouter
    if (!router || document.documentElement.dataset.hydrated !== 'true') return false
    await router.navigate(to)
    return true
  }, address)
  if (!within) {
    await page.goto(address)
    await page.waitForSelector('html[data-hydrated]')
    return
  }
  await page.waitForFunction(() => {
    const { state } = (globalThis as unknown as { __reactRouterDataRouter: Router }).__reactRouterDataRouter
    return state.navigation.state === 'idle' && document.documentElement.dataset.drawn === state.location.key
  })
}

/** What React Router leaves in the window. */
interface Router {
  navigate(to: string): Promise<void>
  state: { location: { key: string }; navigation: { state: string } }
}

/** The ledger of all pages, from whichever of its faces is open. */
export async function allPages(page: Page, timeout?: number): Promise<void> {
  await page.getByRole('button', { name: 'All pages', exact: true }).click({ timeout })
  await page.getByTestId('ledger').waitFor({ timeout })
}

/** The demo, put on the shelf at the first opening, its ledger open. Returns the site's id. */
export async function openDemo(page: Page): Promise<string> {
  await openShelf(page)
  await page.getByRole('link', { name: 'Farrowskerry Light' }).click()
  await allPages(page)
  return /sites\/([^/]+)/.exec(page.url())![1]!
}

/** Takes a ZIP in through the picker and opens its ledger. */
export async function takeInZip(page: Page, name: string, zip: Buffer, base?: string): Promise<void> {
  await page.getByTestId('file-input').setInputFiles({ name, mimeType: 'application/zip', buffer: zip })
  const address = page.getByLabel('The address of the site’s root')
  await expect(address).toBeVisible()
  if (base) await address.fill(base)
  await page.getByRole('button', { name: /^Take in/ }).click()
}

export async function openDesk(page: Page, site: string, path: string, sheet = 'snippet'): Promise<void> {
  await go(page, `/sites/${site}/desk?page=${encodeURIComponent(path)}&sheet=${sheet}`)
  // Not by expect, which reads the whole page at each look until it holds.
  await page.locator('[data-testid=desk][data-ready=true]').waitFor()
}

export const saved = (page: Page) => expect(page.getByTestId('saved')).toHaveAttribute('data-saved', 'saved')

/** The whole site as it is handed off, by path. */
export async function wholeZip(page: Page, site: string): Promise<Record<string, Uint8Array>> {
  await go(page, `/sites/${site}/hand-off`)
  await page.locator('[data-path]').first().waitFor()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Whole site as ZIP' }).click(),
  ])
  return unzipSync(new Uint8Array(readFileSync(await download.path())))
}
