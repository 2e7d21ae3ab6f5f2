/** New words for a block, its mark-up kept. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parsePage } from '../read/parse.ts'
import { textBlocks } from './blocks.ts'
import { lettersOf } from './decoded-text.ts'
import { editText, type WantedLink } from './edit-text.ts'
import { itemsOf } from './items.ts'
import { asShown, shownOf, textOf } from './shown.ts'

const page = (body: string) => `<!doctype html><html><body>${body}</body></html>`
/** The blocks of a page with what they show, or why they are read-only. */
function blocksOf(html: string) {
  const parsed = parsePage(html)
  return textBlocks(parsed.document).map((block) => ({ block, items: itemsOf(html, block, parsed) }))
}
/** The page's body with the words of its nth block changed. */
function edited(
  body: string,
  wanted: string,
  nth = 0,
  links: WantedLink[] = [],
): { body: string; linksLost: string[] } | string {
  const html = page(body)
  const { items } = blocksOf(html)[nth]!
  if (!items.ok) return items.why
  const edit = editText(html, items.items, wanted, '<br>', { links })
  if (!edit.ok) return edit.why
  let out = ''
  let at = 0
  for (const { start, end, text } of edit.splices) {
    expect(start).toBeGreaterThanOrEqual(at)
    out += html.slice(at, start) + text
    at = end
  }
  const whole = out + html.slice(at)
  return {
    body: whole.slice(page('').indexOf('</body>'), whole.lastIndexOf('</body>')),
    linksLost: edit.linksLost,
  }
}
const textIn = (body: string, nth = 0) => {
  const { items } = blocksOf(page(body))[nth]!
  return items.ok ? textOf(shownOf(items.items.items)) : null
}

describe('letters', () => {
  it.each([
    ['a&amp;b', 'a&b'],
    ['&eacute;&#233;&#xE9;', 'ééé'],
    ['&eacutes', 'és'],
    ['AT&T & co', 'AT&T & co'],
    ['&notit;', '¬it;'],
    ['&notin;', '∉'],
    ['&#150;', '–'],
    ['a\r\nb\rc', 'a\nb\nc'],
    ['&constructor;&unknown;', '&constructor;&unknown;'],
    ['&NotEqualTilde;', '≂̸'],
  ])('of %j are %j', (written, text) => {
    const letters = lettersOf(written)
    expect(letters.map((l) => l.value).join('')).toBe(text)
    let at = 0
    for (const { start, end } of letters) {
      expect(start).toBe(at)
      expect(end).toBeGreaterThan(start)
      at = end
    }
    expect(at).toBe(written.length)
  })
  it('are what the parser reads (generated)', () => {
    const piece = fc.constantFrom(
      '&',
      'amp',
      ';',
      '#',
      'x',
      '41',
      '233',
      'é',
      ' ',
      '\r',
      '\n',
      'not',
      'in',
      'copy',
      'eacute',
      '&amp;',
      'z',
      '\u{1f600}',
    )
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
        const written = pieces.join('')
        const { document } = parsePage(
          `<!doctype html><html><body><textarea>x${written}</textarea></body></html>`,
        )
        const found: string[] = []
        const walk = (node: { nodeName: string; value?: string; childNodes?: unknown[] }) => {
          if (node.nodeName === '#text') found.push(node.value!)
          for (const child of node.childNodes ?? []) walk(child as never)
        }
        walk(document as never)
        expect(
          `x${lettersOf(written)
            .map((l) => l.value)
            .join('')}`,
        ).toBe(found.join(''))
      }),
    )
  })
})

describe('blocks', () => {
  it('are elements where a run fills one, stretches beside other blocks', () => {
    const blocks = blocksOf(page('<div>one <b>two</b><p>three</p>four</div><ul><li>five<li>six</ul>'))
    expect(
      blocks.map(({ block, items }) => [
        block.tag,
        block.isStretch,
        items.ok && textOf(shownOf(items.items.items)),
      ]),
    ).toEqual([
      ['div', true, 'one two'],
      ['p', false, 'three'],
      ['div', true, 'four'],
      ['li', false, 'five'],
      ['li', false, 'six'],
    ])
  })
  it.each([
    ['<p><b>one<p>two</b>', /not closed/],
    ['<pre>a  b</pre>', /preformatted/],
    ['<table>stray<tr><td>x</table>', /not closed/],
  ])('that are not certain are read-only: %s', (body, why) => {
    const reasons = blocksOf(page(body)).flatMap(({ items }) => (items.ok ? [] : [items.why]))
    expect(reasons[0]).toMatch(why)
  })
})

describe('new words', () => {
  it.each([
    ['replace where they stood', '<p>The <b>old</b> lamp</p>', 'The new lamp', '<p>The <b>new</b> lamp</p>'],
    [
      'keep what did not change',
      '<p>See <a href="x">the guide</a> now.</p>',
      'See the guide today.',
      '<p>See <a href="x">the guide</a> today.</p>',
    ],
    [
      'of one word stay inside',
      '<p>See the <a href="x">guide</a>.</p>',
      'See the guides.',
      '<p>See the <a href="x">guides</a>.</p>',
    ],
    [
      'behind a link are not the link’s',
      '<p>See <a href="x">guide</a></p>',
      'See guide today',
      '<p>See <a href="x">guide</a> today</p>',
    ],
    ['continue what is bold', '<p>Very <b>loud</b></p>', 'Very loud noise', '<p>Very <b>loud noise</b></p>'],
    [
      'before a link stand before it',
      '<p><a href="x">Guide</a> to it</p>',
      'The Guide to it',
      '<p>The <a href="x">Guide</a> to it</p>',
    ],
    [
      'in what wraps all stay in it',
      '<p><a href="x">Guide</a></p>',
      'The Guide here',
      '<p><a href="x">The Guide here</a></p>',
    ],
    ['take out what has no words left', '<p>One <i>two</i> three</p>', 'One three', '<p>One three</p>'],
    [
      'keep what is led to',
      '<p>One <i id="n">two</i> three</p>',
      'One three',
      '<p>One <i id="n"></i>three</p>',
    ],
    ['are escaped', '<p>a</p>', 'a < b & c', '<p>a &lt; b &amp; c</p>'],
    [
      'keep references that stand',
      '<p>caf&eacute; &amp; bar</p>',
      'café & pub',
      '<p>caf&eacute; &amp; pub</p>',
    ],
    ['do not make a reference of what stood alone', '<p>R&D</p>', 'R&lt', '<p>R&amp;lt</p>'],
    ['do not make a tag of a sign', '<p>a < b</p>', 'a <b', '<p>a &lt;b</p>'],
    ['keep line ends', '<p>one<br>two</p>', 'one\nthree', '<p>one<br>three</p>'],
    ['put line ends in', '<p>one two</p>', 'one\ntwo', '<p>one<br>two</p>'],
    ['keep pictures', '<p>A <img src=a> here</p>', 'The \ufffc here', '<p>The <img src=a> here</p>'],
    ['keep comments', '<p>one <!-- c -->two</p>', 'one three', '<p>one <!-- c -->three</p>'],
    ['fold white space', '<p>\n  one\n  two\n</p>', '  one   three ', '<p>\n  one\n  three\n</p>'],
    ['do not show white space that was folded', '<p>one <b> two</b></p>', 'onetwo', '<p>one<b>two</b></p>'],
  ])('%s', (_, body, wanted, expected) => {
    const result = edited(body, wanted)
    expect(typeof result === 'string' ? result : result.body).toBe(expected)
    expect(textIn(expected)).toBe(asShown(wanted))
  })
  it('say which links go', () => {
    expect(edited('<p>See <a href="/x">the guide</a> now</p>', 'See now')).toMatchObject({
      linksLost: ['/x'],
    })
  })
  it('change nothing where they are what is there', () => {
    expect(edited('<p> a  <b>b</b> </p>', 'a b')).toMatchObject({ body: '<p> a  <b>b</b> </p>' })
  })

  const words = fc.constantFrom(
    'one ',
    'two',
    ' ',
    '\n ',
    '&amp;',
    '&eacute;',
    '&',
    '<br>',
    '<img src=a>',
    '<!-- c -->',
    'été',
    '日本',
    '.',
    '&lt',
  )
  const { body: bits } = fc.letrec<{ body: string; bit: string }>((tie) => ({
    bit: fc.oneof(
      { withCrossShrink: true, depthSize: 'small' },
      { arbitrary: words, weight: 60 },
      {
        arbitrary: fc
          .tuple(fc.constantFrom('b', 'a href="x"', 'code', 'i id=n', 'span'), tie('body'))
          .map(([tag, inner]) => `<${tag}>${inner}</${tag.split(' ')[0]}>`),
        weight: 25,
      },
      // Closed where it is not, or not at all.
      { arbitrary: fc.constantFrom('<b>', '</b>', '<span>', '</i>'), weight: 1 },
    ),
    body: fc.array(tie('bit'), { minLength: 1, maxLength: 8 }).map((all) => all.join('')),
  }))
  const typed = fc
    .array(
      fc.constantFrom('one', 'two', ' ', 'three', '&', '<', 'amp;', 'lt', '\n', '.', '日', 'é', '\ufffc'),
      { maxLength: 10 },
    )
    .map((w) => w.join(''))
  it('are there as they were typed, tags in their order, nothing else changed (generated)', () => {
    let tried = 0
    fc.assert(
      fc.property(bits, typed, (inner, wanted) => {
        const body = `<p>${inner}</p><p>after</p>`
        // What is never closed may make the second paragraph the first block.
        if (blocksOf(page(body))[0]?.block.at !== page('').indexOf('</body>')) return
        const before = textIn(body)
        const result = before === null || before === '' ? 'x' : edited(body, wanted)
        if (typeof result === 'string') return
        tried++
        const atoms = [...before!].filter((c) => c === '\ufffc').length
        let left = atoms
        const meant = asShown([...asShown(wanted)].filter((c) => c !== '\ufffc' || left-- > 0).join(''))
        if (/[^\s\ufffc]/.test(meant)) expect(textIn(result.body)).toBe(meant)
        expect(result.body.endsWith('<p>after</p>')).toBe(true)
        // What stays of the tags is in the order in which it was.
        const tags = (html: string) => html.match(/<\/?(?:b|a|code|i|span|img)(?=[ >])[^>]*>/g) ?? []
        const [old, now] = [tags(body), tags(result.body)]
        let k = 0
        for (const tag of now) {
          while (k < old.length && old[k] !== tag) k++
          expect(k++).toBeLessThan(old.length)
        }
        // A second time there is nothing to do.
        const again = edited(result.body, meant)
        if (/[^\s\ufffc]/.test(meant)) expect(again).toMatchObject({ body: result.body })
      }),
      { numRuns: 1000 },
    )
    expect(tried).toBeGreaterThan(300)
  })
})

describe('links', () => {
  const link = (phrase: string, nth = 0): WantedLink => ({ phrase, nth, href: '/k?a=1&b="2"' })
  const tag = '<a href="/k?a=1&amp;b=&quot;2&quot;">'
  it.each([
    [
      'a phrase',
      '<p>See the knot course now.</p>',
      'See the knot course now.',
      [link('knot course')],
      `<p>See the ${tag}knot course</a> now.</p>`,
    ],
    [
      'its second occurrence',
      '<p>knots, and knots</p>',
      'knots, and knots',
      [link('knots', 1)],
      `<p>knots, and ${tag}knots</a></p>`,
    ],
    [
      'words with mark-up in them',
      '<p>the <b>knot</b> course</p>',
      'the knot course',
      [link('knot course')],
      `<p>the ${tag}<b>knot</b> course</a></p>`,
    ],
    ['words that are new', '<p>old</p>', 'a new knot', [link('knot')], `<p>a new ${tag}knot</a></p>`],
    [
      'two phrases',
      '<p>ropes and knots</p>',
      'ropes and knots',
      [link('ropes'), link('knots')],
      `<p>${tag}ropes</a> and ${tag}knots</a></p>`,
    ],
    [
      'references that stand',
      '<p>R&amp;D &eacute;t&eacute;</p>',
      'R&D été',
      [link('été')],
      `<p>R&amp;D ${tag}&eacute;t&eacute;</a></p>`,
    ],
  ] as const)('go round %s', (_, body, wanted, links, expected) => {
    const result = edited(body, wanted, 0, [...links])
    expect(typeof result === 'string' ? result : result.body).toBe(expected)
  })
  it.each([
    ['<p><b>a knot</b> course</p>', 'knot course', /in another/],
    ['<p>a <a href="x">link</a></p>', 'link', /a link already/],
    ['<p>a <a href="x">link</a> here</p>', 'a link here', /link already/],
    ['<p>a <img src=a> b</p>', 'a \ufffc b', /picture/],
    ['<p>one</p>', 'two', /no longer in this text/],
    ['<details><summary>one two</summary></details>', 'one', null],
  ])('are refused where they cannot be: %s', (body, phrase, why) => {
    const result = edited(body, textIn(body)!, 0, [link(phrase)])
    if (why) expect(result).toMatch(why)
  })
  it('that are there already change nothing', () => {
    const body = `<p>a ${tag}knot</a></p>`
    expect(edited(body, 'a knot', 0, [link('knot')])).toMatchObject({ body })
  })
})
