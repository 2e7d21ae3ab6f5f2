import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { generateWidths } from '../../scripts/generate-widths.ts'
import { cutAtWord, cutToEllipsis } from './cut.ts'
import { defaultSlots, measure, wideTitleFit } from './snippet.ts'
import { countGraphemes, foldText, graphemes, prefixWidths, runsWidth, textWidth } from './width.ts'

const texts = fc.oneof(
  fc.string(),
  fc.string({ unit: 'grapheme' }),
  fc
    .array(
      fc.constantFrom(
        'Tavern',
        'WAVE',
        '灯台',
        '😀',
        'é',
        'e\u0301',
        'Ёлка',
        '11:11',
        ' ',
        '-',
        '–',
        '|',
        'a\u00adb',
        'שלום',
      ),
    )
    .map((a) => a.join(' ')),
)

describe('the short way to a title’s fit', () => {
  it('says what measuring it in full says', () => {
    fc.assert(
      fc.property(texts, fc.nat(6), (text, times) => {
        const title = `${text} `.repeat(times)
        expect(wideTitleFit(title, defaultSlots)).toBe(measure(title, 'title').wide.state)
      }),
    )
  })
})

describe('widths', () => {
  it('come from the fonts that are shipped: the committed table is the one they give', () => {
    expect(readFileSync(join(import.meta.dirname, 'widths.generated.json'), 'utf8').trim()).toBe(
      generateWidths(),
    )
  })
  it('are the sum of the text’s own prefixes, by the short way and the long one', () => {
    fc.assert(
      fc.property(texts, (text) => {
        const folded = foldText(text)
        const { edges } = prefixWidths(folded, 20)
        expect(Math.abs(textWidth(text, 20).px - edges[edges.length - 1]!)).toBeLessThanOrEqual(1 / 64 + 1e-6)
      }),
    )
  })
  it('grow with the size and are zero for nothing', () => {
    expect(textWidth('', 20)).toEqual({ px: 0, estimatedPx: 0, localPx: 0 })
    expect(textWidth('Visit the light', 20).px).toBeCloseTo(113.03, 2)
    expect(textWidth(' Visit \n the  light ', 20).px).toBe(textWidth('Visit the light', 20).px)
  })
  it('that are estimated say so', () => {
    expect(textWidth('灯台', 20)).toEqual({ px: 40, estimatedPx: 40, localPx: 0 })
    expect(textWidth('Light 😀', 20).estimatedPx).toBeCloseTo(24.96)
    expect(textWidth('Ёлка ñ Łódź Ω', 20).estimatedPx).toBe(0)
  })
  it('of runs of different weight are summed without kerning across them', () => {
    expect(
      runsWidth(
        [
          { text: 'T', weight: 'bold' },
          { text: 'o', weight: 'regular' },
        ],
        20,
      ).px,
    ).toBeCloseTo(textWidth('T', 20, 'bold').px + textWidth('o', 20).px, 5)
  })
  it('count characters as people do', () => {
    expect(countGraphemes('e\u0301a')).toBe(2)
    expect(countGraphemes('👨‍👩‍👧 x')).toBe(3)
    const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' })
    fc.assert(
      fc.property(texts, (t) => {
        expect(graphemes(foldText(t))).toEqual(Array.from(segmenter.segment(foldText(t)), (s) => s.segment))
      }),
    )
  })
})

describe('cuts', () => {
  it('show a beginning of the text that fits with its sign, and lose the rest', () => {
    fc.assert(
      fc.property(texts, fc.integer({ min: 60, max: 400 }), (text, px) => {
        const folded = foldText(text)
        for (const cut of [cutToEllipsis(text, px, 20), cutAtWord(text, () => ({ px, last: true }), 20)]) {
          expect(cut.shown + cut.lost).toBe(folded)
          if (cut.cut && cut.shown !== '') expect(textWidth(cut.shown, 20).px).toBeLessThanOrEqual(px + 3)
        }
      }),
    )
  })
  it('fall at a word, without a dash or a comma left hanging', () => {
    const { wide } = measure(
      'Lamp-Lighting Evenings on Farrowskerry: Climb the Tower – at Dusk with the Keeper',
      'title',
    )
    expect(wide.shown).toBe('Lamp-Lighting Evenings on Farrowskerry: Climb the Tower – at')
    expect(
      measure('Farrowskerry '.repeat(4) + 'and a tower, – seen at dusk from the quay', 'title').wide.shown,
    ).not.toMatch(/[\s,–]$/)
  })
  it('have three states, on wide and narrow screens', () => {
    const state = (n: number) => measure('n'.repeat(n), 'title').wide.state
    // Arial's "n" is 1139/2048 em: 11.12 px at 20 px.
    expect([state(50), state(51), state(53), state(54)]).toEqual(['fits', 'at-risk', 'at-risk', 'cut'])
    expect(
      measure('x'.repeat(30), 'title', {
        ...defaultSlots,
        title: { ...defaultSlots.title, wide: { column: 100, size: 20, lines: 1, riskPx: 90 } },
      }).wide.state,
    ).toBe('cut')
  })
  it('give a description its allowance over the lines that the column makes', () => {
    const words = 'boat '.repeat(60)
    const { wide, narrow } = measure(words, 'description')
    const px = (lines: string[]) => lines.reduce((n, l) => n + textWidth(l, 14).px, 0)
    expect(wide.lines).toHaveLength(2)
    expect(px(wide.lines)).toBeLessThanOrEqual(920)
    expect(px(narrow.lines)).toBeLessThanOrEqual(680)
    for (const line of narrow.lines) expect(textWidth(line, 14).px).toBeLessThanOrEqual(358)
  })
})
