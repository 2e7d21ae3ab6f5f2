/** What would be taken of a site, and how links are followed: traps end. */
import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { planOf, leftOutBy, pageAddress, type Scope } from './intake-plan.ts'
import { walkLinks } from './link-walk.ts'
import { readRobots } from './robots.ts'
import { queryKey } from '../addresses/addresses.ts'

const scope = (more: Partial<Scope> = {}): Scope => ({
  under: 'https://s.example/',
  leaveOut: [],
  most: 1000,
  queries: false,
  robots: readRobots('User-agent: *\nDisallow: /held/', 'KeenQuill'),
  ...more,
})

describe('a plan', () => {
  it.each([
    ['https://s.example/a', null],
    ['https://S.example:443/a#top', null],
    ['https://other.example/a', 'another site'],
    ['http://s.example/a', 'another site'],
    ['https://s.example/held/a', 'robots'],
    ['https://s.example/a.PDF', 'not a page'],
    ['https://s.example/shop?id=3', 'query'],
    ['https://s.example/tag/x', 'pattern'],
    ['mailto:a@s.example', 'no address'],
    ['not an address', 'no address'],
  ])('says of %s: %s', (url, leftOut) => {
    expect(planOf([url], scope({ leaveOut: ['/tag/*'] }))[0]!.leftOut).toBe(leftOut)
  })
  it('has each address once, whatever its spelling, and ends at the number', () => {
    const plan = planOf(
      ['https://s.example/caf%c3%a9', 'https://s.example/café', 'https://s.example/b', 'https://s.example/c'],
      scope({ most: 2 }),
    )
    expect(plan.map((p) => p.leftOut)).toEqual([null, null, 'limit'])
  })
  // RFC 3986, 6.2.2 and 6.2.3: the sections' own examples, with a scheme that pages have.
  it.each([
    ['HTTP://a/./b/../b/%63/%7bfoo%7d', 'http://a/b/c/%7Bfoo%7D'],
    ['HTTP://www.EXAMPLE.com/', 'http://www.example.com/'],
    ['http://example.com', 'http://example.com/'],
    ['http://example.com:/', 'http://example.com/'],
    ['http://example.com:80/', 'http://example.com/'],
  ])('knows %s for %s', (written, normal) => {
    expect(queryKey(pageAddress(written)!)).toBe(queryKey(normal))
  })
  it('keeps to a path', () => {
    expect(leftOutBy('https://s.example/da/x', scope({ under: 'https://s.example/en/' }))).toBe('outside')
  })
  it('takes every address it is given once or names why not, generated', () => {
    const part = fc.constantFrom(
      'a',
      'b',
      '%61',
      'tag',
      'held',
      'x.pdf',
      'é',
      '%C3%A9',
      '..',
      '',
      ';jsessionid=3',
    )
    const address = fc
      .tuple(
        fc.constantFrom('https://s.example/', 'https://o.example/', 'ftp://s.example/'),
        fc.array(part, { maxLength: 4 }),
        fc.constantFrom('', '?q=1', '#f'),
      )
      .map(([origin, parts, rest]) => origin + parts.join('/') + rest)
    fc.assert(
      fc.property(
        fc.array(address, { maxLength: 30 }),
        fc.integer({ min: 0, max: 10 }),
        (addresses, most) => {
          const plan = planOf(addresses, scope({ most }))
          const taken = plan.filter((p) => p.leftOut === null)
          expect(taken.length).toBeLessThanOrEqual(most)
          expect(new Set(taken.map((p) => queryKey(p.url))).size).toBe(taken.length)
          for (const { url } of taken) expect(pageAddress(url)).toBe(url)
        },
      ),
    )
  })
})

/** Follows links of a site that answers for every address. */
function follow(
  site: (url: string) => { links: string[]; body?: string },
  more: Partial<Scope> = {},
  start = 'https://s.example/',
) {
  const walk = walkLinks(start, scope(more))
  const asked: string[] = []
  for (let url = walk.next(); url !== null; url = walk.next()) {
    asked.push(url)
    const { links, body = url } = site(url)
    walk.read(
      url,
      links.map((link) => new URL(link, url).href),
      body,
    )
  }
  return { asked, left: walk.leftOut() }
}

describe('following links', () => {
  it('goes breadth first, each page once', () => {
    const pages: Record<string, string[]> = {
      '/': ['/a', '/b'],
      '/a': ['/c', '/'],
      '/b': ['/a'],
      '/c': ['/d#x'],
    }
    const { asked } = follow((url) => ({ links: pages[new URL(url).pathname] ?? [] }))
    expect(asked.map((url) => new URL(url).pathname)).toEqual(['/', '/a', '/b', '/c', '/d'])
  })
  it('does not follow a calendar for ever', () => {
    const { asked } = follow((url) => {
      const day = Number(/\d+/.exec(new URL(url).pathname)?.[0] ?? 0)
      return { links: [`/day/${day + 1}`, '/about'] }
    })
    expect(asked.length).toBeLessThan(15)
    expect(asked).toContain('https://s.example/about')
  })
  it('does take pages that are numbered, named on one page', () => {
    const { asked } = follow((url) => ({
      links: url.endsWith('/') ? Array.from({ length: 300 }, (_, i) => `/item-${i}`) : [],
    }))
    expect(asked).toHaveLength(301)
  })
  it('does not go deeper than 16 links, nor on from pages that say the same', () => {
    expect(follow((url) => ({ links: [`${url}x/`] })).asked).toHaveLength(17)
    expect(follow((url) => ({ links: [`${url}a/`, `${url}b/`], body: 'not found' })).asked).toHaveLength(3)
  })
  it('leaves out the number of a visit', () => {
    const { asked } = follow((url) => ({
      links: url === 'https://s.example/' ? ['/a?PHPSESSID=1', '/a?phpsessid=2', '/a;jsessionid=9'] : [],
    }))
    expect(asked).toEqual(['https://s.example/', 'https://s.example/a'])
  })
  it('names what it leaves out, and why', () => {
    const { left } = follow(() => ({ links: ['/held/x', '/b.pdf', 'https://o.example/', '/?q=2'] }))
    expect(left.map((l) => l.leftOut)).toEqual(['robots', 'not a page', 'another site', 'query'])
  })
})
