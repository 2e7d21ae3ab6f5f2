/**
 * What is too small to tap, against axe-core's rule target-size (WCAG 2.2, 2.5.8) on more than a hundred pages in Chromium;
 * and images' sizes from their bytes against what Chromium decodes.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import axe from 'axe-core'
import { buildSync } from 'esbuild'
import { expect, test } from '@playwright/test'
import { imageSizeOf } from '../../core/site/file-sizes.ts'
import { dusk } from '../../scripts/dusk.ts'
import { DEMO, filesOf } from '../e2e/helpers.ts'

/** The same numbers from 0 to 1 each time. Source: a linear congruence with the constants of Numerical Recipes, from memory. */
function numbers(seed: number): () => number {
  let state = seed
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
}

/** Pages of links and controls of many sizes, near and far from one another: in rows, lists, sentences, tables. */
function pages(): string[] {
  const next = numbers(20261126)
  const pick = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)]!
  const px = (from: number, to: number) => `${Math.floor(from + next() * (to - from))}px`
  const target = () =>
    pick([
      () => `<button style="width:${px(8, 34)};height:${px(8, 34)};padding:0;margin:${px(0, 6)}">b</button>`,
      () =>
        `<a href="#a" style="display:inline-block;width:${px(8, 34)};height:${px(8, 34)};margin:${px(0, 6)}">link</a>`,
      () => `<a href="#a" style="display:block;height:${px(8, 30)};margin:${px(0, 6)}">a line of its own</a>`,
      () =>
        `<input type=checkbox aria-label=c style="margin:${px(0, 6)};width:${px(10, 30)};height:${px(10, 30)}">`,
      () =>
        `<p style="font-size:${px(12, 20)}">Words before <a href="#a">a link in a sentence</a> and words behind.</p>`,
      () => `<select aria-label=s style="height:${px(14, 40)};margin:${px(0, 12)}"><option>One</select>`,
    ])()
  return Array.from({ length: 110 }, () => {
    const around = pick(['div', 'section', 'main', 'td'] as const)
    const inside = Array.from({ length: 6 + Math.floor(next() * 14) }, target).join(pick(['', '\n', '<br>']))
    const body =
      around === 'td' ? `<table><tr><td>${inside}</td></tr></table>` : `<${around}>${inside}</${around}>`
    return `<!doctype html><html lang=en><title>t</title><body style="font:16px/1.2 Arimo,sans-serif;margin:${px(0, 20)}">${body}</body></html>`
  })
}

test('too small to tap: as axe-core says, on 110 generated pages and the demo', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const { outputFiles } = buildSync({
    entryPoints: [join(import.meta.dirname, '../../app/sheets/head/phone/target-size.ts')],
    bundle: true,
    format: 'iife',
    globalName: 'ours',
    write: false,
  })
  const demo = [...filesOf(DEMO)]
    .filter(([path]) => /\.html?$/.test(path))
    .map(([, bytes]) => Buffer.from(bytes).toString('latin1'))
  const style = readFileSync(join(DEMO, 'style.css'), 'utf8')
  const differ: string[] = []
  let small = 0
  let judged = 0
  for (const html of [
    ...pages(),
    ...demo.map((html) =>
      html.replace(/<script[\s\S]*?<\/script>/g, '').replace('</head>', `<style>${style}</style></head>`),
    ),
  ]) {
    await page.setContent(html, { waitUntil: 'domcontentloaded' })
    await page.evaluate(outputFiles[0]!.text.replace('var ours', 'globalThis.ours'))
    // The window stays from one page to the next.
    if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe.source)
    const { ours, theirs, all } = await page.evaluate(async () => {
      const scope = globalThis as unknown as {
        ours: { smallTargets(of: Document): { element: Element }[] }
        axe: typeof axe
      }
      const pathTo = (element: Element) => {
        const every = [...document.querySelectorAll('*')]
        return `${element.tagName.toLowerCase()} ${every.indexOf(element)}`
      }
      const { violations, passes } = await scope.axe.run(document, {
        runOnly: { type: 'rule', values: ['target-size'] },
        elementRef: true,
      })
      const of = (results: axe.Result[]) =>
        results.flatMap((r) => r.nodes.map((n) => pathTo(n.element as unknown as Element)))
      return {
        ours: scope.ours.smallTargets(document).map(({ element }) => pathTo(element)),
        theirs: of(violations),
        all: of(passes).length + of(violations).length,
      }
    })
    judged += all
    small += theirs.length
    const [a, b] = [new Set(ours), new Set(theirs)]
    for (const target of new Set([...ours, ...theirs]))
      if (a.has(target) !== b.has(target))
        differ.push(`${a.has(target) ? 'ours' : 'axe'}: ${target} of ${html.slice(0, 300)}`)
  }
  console.log(`targets: ${judged} judged by axe-core, ${small} too small, ${differ.length} judged otherwise`)
  expect(small).toBeGreaterThan(100)
  expect(differ.slice(0, 5)).toEqual([])
})

test('images are as large as Chromium decodes them', async ({ page }) => {
  const made = await page.evaluate(async () => {
    const all: { type: string; width: number; height: number; bytes: number[] }[] = []
    for (const type of ['image/png', 'image/jpeg', 'image/webp'])
      for (const [width, height] of [
        [1, 1],
        [7, 300],
        [640, 480],
        [1921, 33],
      ] as const) {
        const canvas = new OffscreenCanvas(width, height)
        canvas.getContext('2d')!.fillRect(0, 0, width, height)
        const blob = await canvas.convertToBlob({ type })
        all.push({ type: blob.type, width, height, bytes: [...new Uint8Array(await blob.arrayBuffer())] })
      }
    return all
  })
  expect(new Set(made.map((m) => m.type)).size).toBe(3)
  for (const { width, height, bytes, type } of made)
    expect(imageSizeOf(new Uint8Array(bytes)), type).toEqual({ width, height })
  for (const bytes of [
    dusk(),
    ...[...filesOf(DEMO)].filter(([path]) => path.endsWith('.svg')).map(([, b]) => b),
  ]) {
    const type = bytes[0] === 0x3c ? 'image/svg+xml' : 'image/png'
    const decoded = await page.evaluate(
      async (url) => {
        const image = new Image()
        image.src = url
        await image.decode()
        return { width: image.naturalWidth, height: image.naturalHeight }
      },
      `data:${type};base64,${Buffer.from(bytes).toString('base64')}`,
    )
    const ours = imageSizeOf(bytes)!
    // A drawing without a size of its own is drawn at any; its shape is what is compared.
    if (type === 'image/svg+xml')
      expect(ours.width / ours.height).toBeCloseTo(decoded.width / decoded.height, 2)
    else expect(ours).toEqual(decoded)
  }
})
