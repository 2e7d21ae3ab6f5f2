import { rule } from '../rule.ts'
import { shownImages } from '../../page/read/shown-images.ts'

/** An image that does not say how large it is. */
export const imageUnsized = rule({
  id: 'image-unsized',
  family: 'images',
  severity: 'nit',
  sign: 'missing',
  name: 'Image without width and height',
  basis: 'common practice, no source; WHATWG HTML 4.8.3, the img element’s dimensions',
  why: 'No room is kept for it, and the text jumps when it arrives.',
  mend: 'Give it a width and a height in pixels; a style sheet may still scale it.',
  needs: ['images'],
  message: ({ src, more }) =>
    `“${src}” has no width and height${more ? `, nor ${more === 1 ? 'has one more image' : `have ${more} more images`}` : ''}.`,
  check({ page }, mark) {
    const unsized = shownImages(page).filter((i) => !i.sized && i.src !== '')
    const [first] = unsized
    if (first)
      mark(first, {
        src: first.src.startsWith('data:') ? 'an embedded image' : first.src.slice(0, 200),
        more: unsized.length - 1,
      })
  },
  examples: {
    clean: [
      '<img src=a.jpg alt=x width=300 height=200>',
      '<img src=a.jpg alt=x style="aspect-ratio: 3/2">',
      '<img src=a.jpg alt=x style="width:10em;height:5em">',
      '<img src=a.jpg alt=x hidden>',
    ],
    marked: [
      {
        html: '<p><img src="img/lamp.jpg" alt=x>',
        at: '<img',
        says: /“img\/lamp\.jpg” has no width and height\./,
      },
      {
        html: '<img src=a alt=x width=3><img src=b alt=x><img src=c alt=x width=3 height=3>',
        says: /“a” has no width and height, nor has one more image/,
      },
    ],
  },
})
