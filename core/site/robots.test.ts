/** RFC 9309's own examples, and what robots.txt files in the wild get wrong. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { MOST_ROBOTS, readRobots } from './robots.ts'

const allows = (text: string, token: string, path: string) => readRobots(text, token).allows(path)

describe('RFC 9309', () => {
  // Source: RFC 9309, 5.1, simple example.
  const simple = `User-Agent: *
Disallow: *.gif$
Disallow: /example/
Allow: /publications/

User-Agent: foobot
Disallow:/
Allow:/example/page.html
Allow:/example/allowed.gif

User-Agent: barbot
User-Agent: bazbot
Disallow: /example/page.html

User-Agent: quxbot

EOF`
  it.each([
    ['anybot', '/picture.gif', false],
    ['anybot', '/example/page.html', false],
    ['anybot', '/publications/', true],
    ['foobot', '/example/page.html', true],
    ['foobot', '/example/allowed.gif', true],
    ['foobot', '/publications/', false],
    ['barbot', '/example/page.html', false],
    ['bazbot', '/example/page.html', false],
    ['bazbot', '/example/', true],
    ['quxbot', '/example/page.html', true],
  ])('5.1: %s, %s: %s', (token, path, allowed) => expect(allows(simple, token, path)).toBe(allowed))

  // Source: RFC 9309, 5.2, longest match.
  const longest = `User-Agent: foobot
Allow: /example/page/
Disallow: /example/page/disallowed.gif`
  it.each([
    ['/example/page/', true],
    ['/example/page/disallowed.gif', false],
  ])('5.2: %s: %s', (path, allowed) => expect(allows(longest, 'foobot', path)).toBe(allowed))

  // Source: RFC 9309, 2.2.2, the table of paths to match.
  it.each([
    ['/foo/bar?baz=quz', '/foo/bar?baz=quz'],
    ['/foo/bar/\u30c4', '/foo/bar/%E3%83%84'],
    ['/foo/bar/%E3%83%84', '/foo/bar/\u30c4'],
    ['/foo/bar/%62%61%7A', '/foo/bar/baz'],
    ['/foo/bar/baz', '/foo/bar/%62%61%7a'],
  ])('2.2.2: the rule %s is for %s', (rule, path) =>
    expect(allows(`User-agent: *\nDisallow: ${rule}`, 'a', path)).toBe(false),
  )
  // Source: RFC 9309, 2.2.3, special characters.
  it.each([
    ['/path/file-with-a-%2A.html', '/path/file-with-a-*.html', false],
    ['/path/file-with-a-%2A.html', '/path/file-with-a-b.html', true],
    ['/path/foo-%24', '/path/foo-$', false],
    ['/this/*/exactly', '/this/path/exactly', false],
    ['/this/*/exactly', '/this/path/exactly/and/more', false],
    ['/this/path/exactly$', '/this/path/exactly', false],
    ['/this/path/exactly$', '/this/path/exactly/no', true],
  ])('2.2.3: %s and %s', (rule, path, allowed) =>
    expect(allows(`User-agent: *\nDisallow: ${rule}`, 'a', path)).toBe(allowed),
  )
  it('2.2.1: groups of one agent are taken together, whatever its case; the star is for the others alone', () => {
    const text =
      'User-agent: ExampleBot\nDisallow: /a\n\nUser-agent: *\nDisallow: /c\n\nUser-agent: examplebot/2.0\nDisallow: /b'
    expect(['/a', '/b', '/c'].map((p) => allows(text, 'ExampleBot', p))).toEqual([false, false, true])
    expect(['/a', '/b', '/c'].map((p) => allows(text, 'other', p))).toEqual([true, true, false])
  })
  it('2.2.2: of two rules as long as each other the one that allows holds; robots.txt itself may always be read', () => {
    expect(allows('User-agent: *\nDisallow: /a\nAllow: /a', 'x', '/a')).toBe(true)
    expect(allows('User-agent: *\nDisallow: /', 'x', '/robots.txt')).toBe(true)
  })
})

describe('what files in the wild have', () => {
  it('is read: a mark before the text, any line end, comments, other lines between agents, empty rules', () => {
    const text =
      '\ufeffuser-agent: a # us\r\ncrawl-delay: 2\ruser-agent : b\r\n# no\nSitemap: https://a.example/s.xml # here\nDISALLOW : /x # why\ndisallow:\n'
    for (const token of ['a', 'b']) expect(allows(text, token, '/x')).toBe(false)
    expect(allows(text, 'a', '/y')).toBe(true)
    expect(readRobots(text, 'a').sitemaps).toEqual(['https://a.example/s.xml'])
    expect(readRobots(text, 'a').delay).toBe(2)
  })
  it('beyond the limit is not read, and HTML in its place forbids nothing', () => {
    expect(allows(`${'#'.repeat(MOST_ROBOTS)}\nUser-agent: *\nDisallow: /`, 'a', '/x')).toBe(true)
    expect(allows('<!doctype html><p>User-agent: *<br>Disallow: /', 'a', '/x')).toBe(true)
  })
  it('keeps nobody busy: many stars against a long address', () => {
    const rules = `User-agent: *\n${`Disallow: /${'*a'.repeat(200)}$\n`.repeat(500)}`
    expect(allows(rules, 'x', `/${'a'.repeat(3000)}b`)).toBe(true)
  })
  it('never fails, and gives what a plain reading of the rules gives', () => {
    const piece = fc.constantFrom('/', 'a', 'b', '*', '$', '%41', '%2a')
    const rule = fc.tuple(
      fc.boolean(),
      fc.array(piece, { minLength: 1, maxLength: 6 }).map((p) => `/${p.join('')}`),
    )
    fc.assert(
      fc.property(
        fc.array(rule, { maxLength: 6 }),
        fc.array(fc.constantFrom('/', 'a', 'b', 'A'), { maxLength: 6 }),
        (rules, path) => {
          const text = `User-agent: *\n${rules.map(([allow, r]) => `${allow ? 'Allow' : 'Disallow'}: ${r}`).join('\n')}`
          const asked = `/${path.join('')}`
          // The plain reading: a regular expression for each rule, of which the longest decides.
          const hits = rules
            .map(([allow, r]) => {
              const ends = r.endsWith('$')
              const body = (ends ? r.slice(0, -1) : r).replaceAll('%41', 'A').replaceAll('%2a', '%2A')
              const source = body
                .split('*')
                .map((p) => p.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
                .join('.*')
              return {
                allow,
                length: body.length + (ends ? 1 : 0),
                is: new RegExp(`^${source}${ends ? '$' : ''}`).test(asked),
              }
            })
            .filter((r) => r.is)
            .sort((a, b) => b.length - a.length || Number(b.allow) - Number(a.allow))
          return allows(text, 'x', asked) === (hits[0]?.allow ?? true)
        },
      ),
      { numRuns: 3000 },
    )
  })
})
