/** Placement against a slow, plain reading of the definition, on generated pages; suggested pages on the demo. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { addressOf, isPagePath } from '../addresses/addresses.ts'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import { compileKeyword, type Keyword } from '../words/match.ts'
import { languageOf } from '../words/stem.ts'
import { phrasesForPages } from '../../tests/fixtures/suggested-pages.ts'
import { Chance } from '../../tests/fuzz/fuzz.ts'
import { placementInWords, placementOf, type Placement } from './placement.ts'
import { pageWords, suggestPages } from './suggest-pages.ts'

const BASE = 'https://s.example/'
function factsOf(html: string | Uint8Array, path = 'a.html') {
  const read = readSource(typeof html === 'string' ? new TextEncoder().encode(html) : html)
  if (!read.ok) throw new Error(read.why)
  return readPage(read.source, { path, url: addressOf(path, BASE) })
}

/** All stems within n + 3 consecutive words, in any order: each window looked at. */
function plainlyHas(text: string, keyword: Keyword): boolean {
  const { stem } = languageOf('en')
  const words = text
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((w) => stem(w.toLowerCase()))
  const n = keyword.stems.length
  for (let i = 0; i < words.length; i++) {
    const window = new Set(words.slice(i, i + n + 3))
    if (keyword.stems.every((s) => window.has(s))) return true
  }
  return false
}

describe('placement', () => {
  it('is what the definition says, on 500 generated pages', () => {
    const chance = new Chance(12)
    const words = [
      'knot',
      'knots',
      'course',
      'courses',
      'sea',
      'boat',
      'light',
      'rope',
      'harbour',
      'walk',
      'Knotted',
      'tide',
    ]
    const some = (most: number) => chance.some(most, () => chance.one(words)).join(' ')
    const keyword = compileKeyword('knot course', 'en')
    for (let i = 0; i < 500; i++) {
      const part = {
        title: some(6),
        description: some(8),
        h1: some(4),
        h2: [some(4), some(4)],
        alt: some(4),
        text: some(140),
      }
      const html = `<html lang="en"><head>${part.title ? `<title>${part.title}</title>` : ''}${part.description ? `<meta name="description" content="${part.description}">` : ''}</head><body><main>${part.h1 ? `<h1>${part.h1}</h1>` : ''}${part.h2.map((h) => (h ? `<h2>${h}</h2>` : '')).join('')}${part.alt ? `<img src="a" alt="${part.alt}">` : ''}${part.text ? `<p>${part.text}</p>` : ''}</main></body></html>`
      const { placement } = placementOf(factsOf(html), keyword, { base: BASE, leadWords: 100 })
      const has = (text: string) => (text === '' ? null : plainlyHas(text, keyword))
      const headings = part.h2.filter(Boolean)
      // Blocks stand on lines of their own, and a phrase may go from one to the next.
      const whole = [part.h1, ...headings, part.text].filter(Boolean).join(' ')
      const lead = whole.split(' ').slice(0, 100).join(' ')
      expect(placement, html).toEqual({
        title: has(part.title),
        description: has(part.description),
        slug: false,
        h1: has(part.h1),
        h2: headings.length === 0 ? null : headings.some((h) => plainlyHas(h, keyword)),
        lead: has(lead),
        body: has(whole),
        alt: has(part.alt),
      })
    }
  })
  it('is said in words, and leaves out what a page has none of', () => {
    const placement: Placement = {
      title: true,
      description: null,
      slug: true,
      h1: true,
      h2: false,
      lead: true,
      body: true,
      alt: null,
    }
    expect(placementInWords(placement)).toBe('title, slug, H1, first 100 words, text; not in: H2')
    expect(placementInWords({ ...placement, h2: null })).toBe('title, slug, H1, first 100 words, text')
  })
})

describe('suggested pages', () => {
  it('have the right page first for at least 19 of 20 phrases', () => {
    const site = join(import.meta.dirname, '../../stand-ins/site')
    const pages = readdirSync(site, { recursive: true, encoding: 'utf8' })
      .filter(isPagePath)
      .map((path) =>
        pageWords(path, factsOf(new Uint8Array(readFileSync(join(site, path))), path), BASE, 'en'),
      )
    const wrong = phrasesForPages.flatMap(([phrase, path]) => {
      const [first] = suggestPages(phrase, pages)
      return first?.id === path ? [] : [`${phrase}: ${first?.id}, not ${path}`]
    })
    expect(wrong.length, wrong.join('; ')).toBeLessThanOrEqual(1)
    expect(suggestPages('zeppelin', pages)).toEqual([])
  })
})
