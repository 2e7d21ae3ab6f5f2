import { descriptionOf } from '../../page/read/facts.ts'
import { titleOf } from '../../page/read/facts.ts'
import { sameText } from '../../site/site-index.ts'
import { rule } from '../rule.ts'

/** The description repeats the title. */
export const descriptionRepeatsTitle = rule({
  id: 'description-repeats-title',
  family: 'description',
  severity: 'nit',
  sign: 'alike',
  name: 'The description repeats the title',
  basis: 'common practice, no source',
  why: 'The title is shown right above it; use the room to say more.',
  mend: 'Begin with something that the title does not say.',
  needs: ['description'],
  message: ({ title }) =>
    `The description ${title === null ? 'is the title' : `starts with all of the title, “${title}”`}.`,
  check({ page }, mark) {
    const description = descriptionOf(page)
    const title = titleOf(page)?.text
    if (!description || !title) return
    const [d, t] = [sameText(description.content), sameText(title)]
    if (d.startsWith(t)) mark(description, { title: d === t ? null : title })
  },
  examples: {
    clean: ['<title>Tides</title>' + '<meta name=description content="When the sea is high.">'],
    marked: [
      {
        html:
          '<title>Tides of the rock</title>' +
          '<meta name=description content="Tides of the rock: when the sea is high.">',
        at: '<meta',
        says: /starts with all of the title, “Tides of the rock”/,
      },
      { html: '<title>Tides</title>' + '<meta name=description content="tides">', says: /is the title/ },
    ],
  },
})
