import { describe, expect, it } from 'vitest'
import { defaultSlots } from '../measure/snippet.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import { lacksOf, structureOf, type PageStructure } from './page-structure.ts'

function structure(html: string, phrase = 'boat trips'): PageStructure {
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) throw new Error(read.why)
  const page = readPage(read.source, { path: 'x.html', url: 'https://s.example/x.html' })
  return structureOf('x', page, phrase, { language: 'en', slots: defaultSlots, leadWords: 100 })
}

describe('a page’s structure in figures', () => {
  it('counts what an editor would count by hand', () => {
    const counted = structure(
      `<html lang="en"><title>Fish soup</title><script type="application/ld+json">
      {"@context":"https://schema.org","@graph":[{"@type":"Product","offers":{"@type":"Offer"}},{"@type":["https://schema.org/Event","Product"]}]}
      </script><body><nav><a href="/a">A</a></nav><main><p>One two three.</p><h1>Trips</h1><p>Four five.</p>
      <img src="a.png"><img src="b.png" alt="B"><img src="c.png" alt=""><h2>Boats</h2>
      <a href="https://s.example/b">b</a> <a href="https://o.example/">o</a> <a href="mailto:a@s.example">m</a></main>`,
      'fish soup',
    )
    expect(counted).toMatchObject({
      words: 10,
      lead: 3,
      sections: 1,
      images: 3,
      imagesWithoutAlt: 1,
      linksWithin: 2,
      linksOut: 1,
      types: ['Product', 'Event', 'Offer'],
      keyword: { places: ['title'], inText: 0 },
    })
    expect(counted.headings.map((h) => [h.level, h.text, h.words])).toEqual([
      [1, 'Trips', 2],
      [2, 'Boats', 3],
    ])
  })
})

describe('what all others have and ours has not', () => {
  const other = (heading: string, extra = '') =>
    structure(
      `<title>Boat trips</title><main><h1>Boat trips</h1><h2>${heading}</h2><p>${'word '.repeat(50)}</p><img src="a.png" alt="">${extra}</main><script type="application/ld+json">{"@context":"https://schema.org","@type":"Event"}</script>`,
    )
  const ours = structure('<title>Trips</title><main><h1>Sailing</h1><p>A few words.</p></main>')
  it('is what each of them has, words of headings folded by their stems', () => {
    const lacks = lacksOf(ours, [other('Tickets and prices'), other('The price of a trip')], 'en')
    expect(lacks.subjects.map((word) => word.slice(0, 4))).toEqual(['boat', 'trip', 'pric'])
    expect(lacks.places).toEqual(['title', 'H1', 'first 100 words'])
    expect(lacks.types).toEqual(['Event'])
    expect(lacks.fewer.map((f) => [f.what, f.ours])).toEqual([
      ['words', 4],
      ['sections', 0],
      ['images', 0],
    ])
  })
  it('is nothing where one of them lacks it too, nor beside none', () => {
    expect(lacksOf(ours, [other('A'), ours], 'en')).toEqual({
      subjects: [],
      places: [],
      types: [],
      fewer: [],
    })
    expect(lacksOf(ours, [], 'en')).toEqual({ subjects: [], places: [], types: [], fewer: [] })
  })
})
