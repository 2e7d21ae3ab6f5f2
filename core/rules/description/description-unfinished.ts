import { descriptionOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The description does not end its sentence. */
export const descriptionUnfinished = rule({
  id: 'description-unfinished',
  family: 'description',
  severity: 'nit',
  sign: 'missing',
  name: 'The description stops mid-sentence',
  basis: 'common practice, no source',
  why: 'It looks cut off or careless.',
  mend: 'Finish the sentence.',
  needs: ['description'],
  message: ({ end }) => `It ends in “${end}”; a full stop, question mark or exclamation mark is expected.`,
  check({ page }, mark) {
    const description = descriptionOf(page)
    const text = description?.content ?? ''
    if (text === '' || /[.!?…。！？।؟]["'”’»)\]]*$/u.test(text)) return
    mark(description, { end: text.slice(-18) })
  },
  examples: {
    clean: [
      '<meta name=description content="It ends here.">',
      '<meta name=description content="Does it (yes!)">',
      '<title>x</title>',
    ],
    marked: [
      {
        html: '<meta name=description content="Lamps and oil for">',
        at: '<meta',
        says: /It ends in “Lamps and oil for”/,
      },
    ],
  },
})
