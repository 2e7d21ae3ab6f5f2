import { primaryLanguage } from '../../words/stem.ts'
import { titleOf } from '../../page/read/facts.ts'
import { namesIn, toCasing } from '../../wording/casing.ts'
import { protectedBy } from '../house-style.ts'
import { rule } from '../rule.ts'

const styleNames = { sentence: 'sentence style', ap: 'AP style', chicago: 'Chicago style', 'as typed': '' }

/** The title is not in the house's casing style. English only: the styles are of English. */
export const titleCase = rule({
  id: 'title-case',
  family: 'title',
  severity: 'nit',
  sign: 'order',
  name: 'Title not in the house’s casing style',
  basis: 'the house’s choice; AP and Chicago by their manuals, from memory',
  why: 'Titles set in one style look cared for.',
  mend: 'Set it in the house’s style; add names that the style cannot know to the protected words.',
  needs: ['title'],
  message: ({ expected, styleName }) => `In ${styleName} the title is “${expected}”.`,
  check({ page, style }, mark) {
    const title = titleOf(page)
    if (style.casing === 'as typed' || !title || title.text === '') return
    if (primaryLanguage(page.lang ?? style.language) !== 'en') return
    const expected = toCasing(title.text, style.casing, {
      protectedWords: protectedBy(style),
      names: namesIn(page.main.text),
    })
    if (expected === title.text) return
    mark(
      title,
      { expected, styleName: styleNames[style.casing] },
      { label: 'Change the casing', edits: [{ target: 'title', edit: { value: expected } }] },
    )
  },
  examples: {
    clean: [
      '<html lang=en><title>any Casing at all</title>',
      { html: '<html lang=en><title>A Night on the Rock</title>', style: { casing: 'chicago' } },
      { html: '<html lang=de><title>Eine Nacht auf dem Felsen</title>', style: { casing: 'sentence' } },
    ],
    marked: [
      {
        html: '<html lang=en><title>A night on the rock</title>',
        style: { casing: 'ap' },
        at: '<title',
        says: /In AP style the title is “A Night on the Rock”/,
      },
      {
        html: '<html lang=en><title>Sail With the Petrel</title><p>When the Petrel sails, she sails.',
        style: { casing: 'sentence' },
        says: /“Sail with the Petrel”/,
      },
    ],
  },
})
