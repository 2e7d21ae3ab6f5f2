import { rule } from '../rule.ts'

/** A visible image without alternative text. */
export const imageAlt = rule({
  id: 'image-alt',
  family: 'images',
  severity: 'flaw',
  sign: 'missing',
  name: 'Image without alternative text',
  basis: 'WCAG 2.2, 1.1.1; W3C ACT rule 23a2a8',
  why: 'People who cannot see the image, and search engines, get nothing or its file name.',
  mend: 'Say what it shows; for an ornament, leave the alt empty.',
  needs: ['images'],
  message: ({ src, blank }) =>
    `${src ? `“${src}”` : 'An image'} has ${blank ? 'nothing but white space in its alt; for an ornament, leave it empty' : 'no alt attribute'}.`,
  check({ page }, mark) {
    for (const image of page.images)
      if (!image.hidden && !image.named && !image.presentational) {
        const blank = image.alt !== null && image.alt !== '' && image.alt.trim() === ''
        if (image.alt === null || blank)
          mark(image, { src: image.src.startsWith('data:') ? 'an embedded image' : image.src, blank })
      }
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
    marked: [
      { html: '<img src=a.jpg alt=" ">', at: '<img', says: /“a\.jpg” has nothing but white space/ },
      { html: '<p><img src="img/lamp.jpg"></p>', at: '<img', says: /“img\/lamp\.jpg” has no alt/ },
    ],
  },
})
