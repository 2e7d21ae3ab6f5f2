/**
 * Writes core/measure/widths.generated.json: the advance widths and kerning pairs of Arimo (OFL-1.1), read with
 * fontkit from the Fontsource files that the application ships, so that what is measured is what is drawn.
 * Source of every figure: @fontsource/arimo, version in `meta`. Run with `npm run widths`.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import * as fontkit from 'fontkit'

const root = join(import.meta.dirname, '..')
const fontsource = join(root, 'node_modules/@fontsource/arimo')

interface PairValue {
  secondGlyph: number
  value1?: { xAdvance?: number }
}
interface List<T> {
  length: number
  get?(i: number): T
  [i: number]: T
}
const items = <T>(list: List<T>): T[] =>
  Array.from({ length: list.length }, (_, i) => (list.get ? list.get(i) : list[i]) as T)

/** Code points of a CSS unicode-range: `U+0460-052F,U+20B4`. */
function rangeOf(css: string): Set<number> {
  const set = new Set<number>()
  for (const part of css.split(',')) {
    const [from, to] = part.trim().slice(2).split('-')
    for (let cp = parseInt(from!, 16); cp <= parseInt(to ?? from!, 16); cp++) set.add(cp)
  }
  return set
}

function coverageGlyphs(coverage: {
  version: number
  glyphs?: List<number>
  rangeRecords?: List<{ start: number; end: number }>
}): number[] {
  if (coverage.version === 1) return items(coverage.glyphs!)
  return items(coverage.rangeRecords!).flatMap((r) =>
    Array.from({ length: r.end - r.start + 1 }, (_, i) => r.start + i),
  )
}

function weightTable(weight: number) {
  const unicode = JSON.parse(readFileSync(join(fontsource, 'unicode.json'), 'utf8')) as Record<string, string>
  const advances = new Map<number, number>()
  const kerning = new Map<number, Map<number, number>>()
  for (const [subset, css] of Object.entries(unicode)) {
    // eslint-disable-next-line @typescript-eslint/no-explicit-any -- fontkit has no types
    const font = fontkit.openSync(join(fontsource, `files/arimo-${subset}-${weight}-normal.woff2`)) as any
    const range = rangeOf(css)
    const points = (font.characterSet as number[]).filter((cp) => range.has(cp) && cp <= 0xffff)
    const pointsOfGlyph = new Map<number, number[]>()
    for (const cp of points) {
      const glyph = font.glyphForCodePoint(cp)
      advances.set(cp, glyph.advanceWidth)
      pointsOfGlyph.set(glyph.id, [...(pointsOfGlyph.get(glyph.id) ?? []), cp])
    }
    const kern = font.GPOS?.featureList.find((f: { tag: string }) => f.tag === 'kern')
    for (const lookupIndex of kern?.feature.lookupListIndexes ?? []) {
      const lookup = items(font.GPOS.lookupList as List<{ subTables: List<never> }>)[lookupIndex]!
      for (const sub of items(lookup.subTables) as {
        version: number
        coverage: never
        pairSets: List<List<PairValue>>
      }[]) {
        if (sub.version !== 1)
          throw new Error(`Pair format ${sub.version} in ${subset} ${weight}: not handled`)
        const lefts = coverageGlyphs(sub.coverage)
        items(sub.pairSets).forEach((set, i) => {
          for (const pair of items(set))
            for (const left of pointsOfGlyph.get(lefts[i]!) ?? [])
              for (const right of pointsOfGlyph.get(pair.secondGlyph) ?? []) {
                const row = kerning.get(left) ?? new Map<number, number>()
                if (!row.has(right)) row.set(right, pair.value1?.xAdvance ?? 0)
                kerning.set(left, row)
              }
        })
      }
    }
  }
  const runs: number[][] = []
  for (const cp of [...advances.keys()].sort((a, b) => a - b)) {
    const last = runs.at(-1)
    if (last && last[0]! + last.length - 1 === cp) last.push(advances.get(cp)!)
    else runs.push([cp, advances.get(cp)!])
  }
  const pairs = [...kerning].sort((a, b) => a[0] - b[0]).map(([left, row]) => [left, ...[...row].flat()])
  return { advances: runs, kerning: pairs }
}

export function generateWidths(): string {
  const version = JSON.parse(readFileSync(join(fontsource, 'package.json'), 'utf8')).version
  return JSON.stringify({
    meta: {
      font: 'Arimo',
      licence: 'OFL-1.1',
      source: `@fontsource/arimo ${version}`,
      generator: 'scripts/generate-widths.ts',
    },
    unitsPerEm: 2048,
    regular: weightTable(400),
    bold: weightTable(700),
  })
}

if (process.argv[1] === import.meta.filename) {
  const json = generateWidths()
  writeFileSync(join(root, 'core/measure/widths.generated.json'), json + '\n')
  console.log(`${json.length} characters written`)
}
