import { rule } from '../rule.ts'
import { shownImages } from '../../page/read/shown-images.ts'
import { resolveAddress } from '../../addresses/addresses.ts'
import { idAt } from '../../site/site-index.ts'
import { inBytes } from '../../site/in-bytes.ts'
import { chosenSource, oversizeOf } from '../../site/page-weight.ts'

/** What is saved below this is not worth a new file, in bytes. Common practice, no source. */
const LEAST_SAVED = 50_000

/** An image file with far more pixels than its place shows. */
export const imageOversize = rule({
  id: 'image-oversize',
  family: 'images',
  severity: 'nit',
  sign: 'too-much',
  name: 'Image larger than its place',
  basis: 'common practice, no source: up to twice the width of its place, for screens with two pixels to one',
  why: 'Readers load pixels that no screen shows; the page arrives later, on a phone most of all.',
  mend: 'Save the image at the width named, or offer several widths by “srcset” and “sizes”.',
  needs: ['images'],
  message: ({ src, natural, place, enough, saved }) =>
    `“${src}” is ${Number(natural).toLocaleString('en')} px wide and is shown at ${Number(place).toLocaleString('en')}; ${Number(enough).toLocaleString('en')} px would do for any screen and save about ${inBytes(Number(saved))}.`,
  check({ page, site }, mark) {
    const from = resolveAddress(page.base ?? '', page.url) ?? page.url
    for (const image of shownImages(page)) {
      const src = chosenSource(image)
      const url = src === '' || src.startsWith('data:') ? null : resolveAddress(src, from)
      const id = url === null ? undefined : idAt(site, url)
      const size = id === undefined ? undefined : site.sizes.get(id)
      const oversize = size && oversizeOf(image, size)
      if (!oversize || oversize.saved <= LEAST_SAVED) continue
      const { natural, place, enough, saved } = oversize
      mark(image, { src: src.slice(0, 200), natural, place, enough, saved })
    }
  },
  examples: {
    clean: [
      {
        html: '<img src=lamp.jpg alt=x width=600 height=400>',
        files: { 'lamp.jpg': { bytes: 900_000, image: { width: 1200, height: 800 } } },
      },
      {
        html: '<img src=lamp.jpg alt=x width=600 height=400>',
        files: { 'lamp.jpg': { bytes: 60_000, image: { width: 2400, height: 1600 } } },
      },
      {
        html: '<img src=lamp.jpg alt=x style="width:100%">',
        files: { 'lamp.jpg': { bytes: 900_000, image: { width: 4000, height: 3000 } } },
      },
      { html: '<img src=elsewhere.jpg alt=x width=60 height=40>' },
      {
        html: '<img src=l.jpg srcset="s.jpg 800w, l.jpg 4000w" sizes="400px" alt=x>',
        files: {
          's.jpg': { bytes: 90_000, image: { width: 800, height: 600 } },
          'l.jpg': { bytes: 2_000_000, image: { width: 4000, height: 3000 } },
        },
      },
    ],
    marked: [
      {
        html: '<p>On the rock.</p><img src="img/lamp.jpg" alt=x width=300 height=200>',
        files: { 'img/lamp.jpg': { bytes: 400_000, image: { width: 1200, height: 800 } } },
        at: '<img',
        says: /“img\/lamp\.jpg” is 1,200 px wide and is shown at 300; 600 px would do for any screen and save about 300 kB\./,
      },
      {
        html: '<img srcset="l.jpg 4000w" sizes="(max-width: 600px) 100vw, 400px" alt=x>',
        files: { 'l.jpg': { bytes: 2_000_000, image: { width: 4000, height: 3000 } } },
        at: '<img',
        says: /“l\.jpg” is 4,000 px wide and is shown at 1,280/,
      },
    ],
  },
})
