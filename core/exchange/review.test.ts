import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { judgedPage } from '../../tests/fixtures/judged-page.ts'
import { piecesBetween, reviewOf } from './review.ts'

const page = (html: string) => judgedPage(html).page
const BEFORE = `<html lang="en"><title>Tides</title><meta name="description" content="D"><main><h1>Tides</h1><h2>Spring</h2><h2>Neap</h2>
<p>The water comes twice a day.</p><p>It goes as well.</p></main><script type="application/ld+json">{"@context":"https://schema.org","@type":"Event","name":"Tides","offers":{"@type":"Offer","price":"3"}}</script>`

describe('what a reviewer reads', () => {
  it('is nothing where nothing changed', () => {
    expect(reviewOf(page(BEFORE), page(BEFORE))).toEqual({ fields: [], headings: [], text: [], data: [] })
  })
  it('has each change by itself', () => {
    const after = BEFORE.replace('lang="en"', 'lang="en-GB"')
      .replace('<h2>Spring</h2>', '<h3>Spring tides</h3>')
      .replace('twice a day', 'two times a day')
      .replace('"3"', '"4"')
    const review = reviewOf(page(BEFORE), page(after))
    expect(review.fields).toEqual([{ field: 'Language', before: 'en', after: 'en-GB' }])
    expect(review.headings).toEqual([
      { before: { level: 1, text: 'Tides' }, after: { level: 1, text: 'Tides' }, changed: false },
      { before: { level: 2, text: 'Spring' }, after: { level: 3, text: 'Spring tides' }, changed: true },
      { before: { level: 2, text: 'Neap' }, after: { level: 2, text: 'Neap' }, changed: false },
    ])
    const water = review.text.find((pieces) => pieces[0]!.text.startsWith('The water'))
    expect(water).toEqual([
      { kind: 'same', text: 'The water comes ' },
      { kind: 'gone', text: 'twice ' },
      { kind: 'new', text: 'two times ' },
      { kind: 'same', text: 'a day.' },
    ])
    expect(review.data).toEqual([
      { kind: 'gone', thing: 'Offer', line: 'price: 3' },
      { kind: 'new', thing: 'Offer', line: 'price: 4' },
    ])
  })
  it('stands beside what it became, not beside whatever comes next', () => {
    const headings = (list: string) => {
      const html = list
        .split(', ')
        .map((h) => `<h2>${h}</h2>`)
        .join('')
      return page(`<main><h1>Tides</h1>${html}<h2>Neap</h2></main>`)
    }
    const beside = (before: string, after: string) =>
      reviewOf(headings(before), headings(after)).headings.flatMap((h) =>
        h.changed ? [[h.before?.text ?? null, h.after?.text ?? null]] : [],
      )
    expect(beside('How to get here, The boat at ten', 'The boat at half past ten')).toEqual([
      ['How to get here', null],
      ['The boat at ten', 'The boat at half past ten'],
    ])
    expect(beside('How to get here, The boat at ten', 'The boat at eleven, Where to stay')).toEqual([
      ['How to get here', null],
      ['The boat at ten', 'The boat at eleven'],
      [null, 'Where to stay'],
    ])
    // Nothing alike: one in the place of the other all the same.
    expect(beside('Springs', 'Moon')).toEqual([['Springs', 'Moon']])
  })
  it('has every heading before and after once, in order (generated)', () => {
    const texts = fc.array(fc.constantFrom('One', 'One more', 'Two', 'Three', 'Thrice'), { maxLength: 8 })
    const html = (list: string[]) => `<main><h1>Tides</h1>${list.map((h) => `<h2>${h}</h2>`).join('')}</main>`
    fc.assert(
      fc.property(texts, texts, (before, after) => {
        const { headings } = reviewOf(page(html(before)), page(html(after)))
        const side = (which: 'before' | 'after') => headings.flatMap((h) => h[which]?.text ?? []).slice(1)
        if (headings.length === 0) expect(before).toEqual(after)
        else expect([side('before'), side('after')]).toEqual([before, after])
      }),
    )
  })
  it('pieces put together are both wordings', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'b', ' ', 'é', '漢') }),
        fc.string({ unit: fc.constantFrom('a', 'b', ' ', '漢') }),
        (before, after) => {
          const pieces = piecesBetween(before, after)
          const without = (kind: string) =>
            pieces
              .filter((piece) => piece.kind !== kind)
              .map((piece) => piece.text)
              .join('')
          expect(without('new')).toBe(before)
          expect(without('gone')).toBe(after)
        },
      ),
    ))
})
