import { rule } from '../rule.ts'

/** A visible image without alternative text. */
export const imageAlt = rule({
  id: 'image-alt',
  family: 'images',
  severity: 'flaw',
  sign: 'missing',
  name: 'An image without alternative text',
  basis: 'WCAG 2.2, 1.1.1; W3C ACT rule 23a2a8',
  why: 'Who does not see the image, or searches by words, gets nothing, or its file name.',
  mend: 'Say what it shows; for an ornament, an empty alt.',
  needs: ['images'],
  message: ({ src }) => `${src ? `“${src}”` : 'An image'} has no alt attribute.`,
  check({ page }, mark) {
    for (const image of page.images)
      if (image.alt === null && !image.hidden && !image.named && !image.presentational)
        mark(image, { src: image.src.startsWith('data:') ? 'an embedded image' : image.src })
  },
  examples: {
    clean: [
      '<img src=a.jpg alt="The lamp">',
      '<img src=line.png alt="">',
      '<img src=a.jpg aria-label="The lamp">',
      '<img src=a.jpg role=presentation>',
      '<div hidden><img src=a.jpg></div>',
      '<p id=cap>The lamp</p><img src=a.jpg aria-labelledby=cap>',
    ],
    marked: [{ html: '<p><img src="img/lamp.jpg"></p>', at: '<img', says: /“img\/lamp\.jpg” has no alt/ }],
  },
})
