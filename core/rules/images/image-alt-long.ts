import { countGraphemes } from '../../measure/width.ts'
import { rule } from '../rule.ts'
import { hasUnspacedScript } from '../scripts.ts'
import { shownImages } from '../../page/read/shown-images.ts'

/** A long alternative text. */
export const imageAltLong = rule({
  id: 'image-alt-long',
  family: 'images',
  severity: 'nit',
  sign: 'too-much',
  name: 'Long alternative text',
  basis: 'common practice, no source',
  why: 'It is read aloud without a pause and cannot be skimmed.',
  mend: 'Say what matters in one breath; put the rest in the text beside the picture.',
  needs: ['images'],
  message: ({ count, most }) => `${count} characters; the house style asks for ${most} at most.`,
  check({ page, style }, mark) {
    const most = style.limits.altLongest
    for (const image of shownImages(page)) {
      if (image.alt === null || image.alt.length <= most || hasUnspacedScript(image.alt)) continue
      const count = countGraphemes(image.alt.trim())
      if (count > most) mark(image, { count, most })
    }
  },
  examples: {
    clean: ['<img src=a alt="The lamp">', `<img src=a alt="${'x'.repeat(125)}">`],
    marked: [
      { html: `<img src=a alt="${'lamp '.repeat(30)}">`, at: '<img', says: /149 characters; .* 125 at most/ },
    ],
  },
})
