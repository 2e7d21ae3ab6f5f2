import { rule } from '../rule.ts'

/** So much markup in a comment is a part of the page that somebody put by; common practice, no source. */
const MARKUP = 200
const FEWEST_TAGS = 4
/** Read from the sign outwards, so that a long run of letters is gone through once. */
const person = /(?<=[\w+-])@(?=[\w-]{1,200}\.[\w-])/
const secret = /\b(?:pass(?:word|wd|wort)?|pwd|secret|api[_-]?key|token|login)\s*[:=]\s*\S+/i
const note = /\b(?:TODO|FIXME|XXX)\b/
const tags = /<\/?[a-z][^<>]*>/gi

/** What in a comment is not meant for everybody; null where nothing is. */
export function whatOf(
  text: string,
): 'an email address' | 'what looks like a password' | 'a note to oneself' | 'markup' | null {
  // What some browsers once read as their own: not a comment that was forgotten.
  if (/^\s*\[if\b/i.test(text)) return null
  if (secret.test(text)) return 'what looks like a password'
  if (person.test(text)) return 'an email address'
  if (note.test(text)) return 'a note to oneself'
  if (text.length > MARKUP && (text.match(tags) ?? []).length >= FEWEST_TAGS) return 'markup'
  return null
}

/** A comment that was forgotten in the page. */
export const shellComment = rule({
  id: 'shell-comment',
  family: 'shell',
  shownOn: { head: 'broken' },
  severity: 'nit',
  sign: 'too-much',
  name: 'Forgotten comment',
  basis: 'common practice, no source',
  why: 'Anyone who looks at the source can read it.',
  mend: 'Remove it, unless a program needs it.',
  needs: ['text'],
  message: ({ what, text }) => `A comment contains ${what}: “${text}”.`,
  check({ page }, mark) {
    for (const { text, start, end } of page.comments) {
      const what = whatOf(text)
      if (what)
        mark(
          { start, end },
          { what, text: text.trim().replace(/\s+/g, ' ').slice(0, 60) },
          {
            label: 'Remove it',
            edits: [{ target: 'comment', at: start, edit: { remove: true } }],
            judgement: true,
          },
        )
    }
  },
  examples: {
    clean: [
      '<!-- the menu -->',
      '<!--[if IE]><p>old@browser.example</p><![endif]-->',
      `<!-- ${'words '.repeat(60)} -->`,
    ],
    marked: [
      {
        html: '<p>x</p><!-- ask ada@light.example -->',
        at: '<!--',
        says: /an email address: “ask ada@light\.example”/,
      },
      { html: '<!-- login: keeper password: lamp1 -->', says: /looks like a password/ },
      { html: '<!-- TODO prices -->', says: /a note to oneself/ },
      {
        html: `<!-- ${'<li><a href="a">A link that was here</a></li>'.repeat(6)} -->`,
        says: /contains markup/,
      },
    ],
  },
})
