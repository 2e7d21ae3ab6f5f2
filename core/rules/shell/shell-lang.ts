import { languagePattern } from '../../words/language.ts'
import { rule } from '../rule.ts'

/** No language, or one that is no language tag. */
export const shellLang = rule({
  id: 'shell-lang',
  family: 'shell',
  severity: 'flaw',
  sign: 'missing',
  name: 'Page language missing or invalid',
  basis: 'WCAG 2.2, 3.1.1; W3C ACT rule b5c3f8; RFC 5646',
  why: 'Screen readers choose the voice by it; browsers choose spelling and hyphenation.',
  mend: 'Declare it on the html element, for example lang="en".',
  needs: ['head'],
  message: ({ lang }) =>
    lang === null
      ? 'The html element has no lang attribute.'
      : `lang="${lang}" is not a language tag; “en” and “en-GB” are.`,
  check({ page, style }, mark) {
    if (page.lang !== null && languagePattern.test(page.lang)) return
    mark(
      page.html,
      { lang: page.lang },
      style.language
        ? {
            label: `Declare ${style.language}`,
            edits: [{ target: 'lang', edit: { value: style.language } }],
          }
        : undefined,
    )
  },
  examples: {
    clean: ['<html lang=en>', '<html lang="de-CH-1996">', '<html lang=EN-gb>'],
    marked: [
      { html: '<html><p>Hello', at: '<html', says: /has no lang/ },
      { html: '<p>Hello', at: null, says: /has no lang/, style: { language: 'en' } },
      { html: '<html lang=""><p>Hello', says: /not a language tag/, style: { language: 'da' } },
      { html: '<html lang="english!">', says: /lang="english!" is not a language tag/ },
    ],
  },
})
