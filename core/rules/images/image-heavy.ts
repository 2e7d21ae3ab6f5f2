import { rule } from '../rule.ts'
import { inBytes } from '../../site/in-bytes.ts'
import { resourcesOf } from '../../site/page-weight.ts'

/** An image file of more bytes than the house allows. */
export const imageHeavy = rule({
  id: 'image-heavy',
  family: 'images',
  severity: 'nit',
  sign: 'too-much',
  name: 'Heavy image file',
  basis: 'common practice, no source: 200 kB',
  why: 'Images are most of what a page weighs. On a phone’s connection a heavy one is waited for.',
  mend: 'Save it with stronger compression, in a newer format (WebP, AVIF), or with fewer pixels.',
  needs: ['images'],
  message: ({ src, bytes, most }) =>
    `“${src}” weighs ${inBytes(Number(bytes))}; the house style asks for ${inBytes(Number(most))} at most.`,
  check({ page, site, style }, mark) {
    const most = style.limits.imageHeaviest * 1_000
    for (const resource of resourcesOf(page, site)) {
      const { kind, named, size } = resource
      if (kind === 'image' && size && size.bytes > most)
        mark(resource, { src: named.slice(0, 200), bytes: size.bytes, most })
    }
  },
  examples: {
    clean: [
      { html: '<img src=a.jpg alt=x>', files: { 'a.jpg': { bytes: 200_000, image: null } } },
      { html: '<img src=elsewhere.jpg alt=x>' },
    ],
    marked: [
      {
        html: '<p>The stairs.</p><img src=a.jpg alt=x><img src=a.jpg alt=y>',
        files: { 'a.jpg': { bytes: 340_400, image: { width: 10, height: 10 } } },
        at: '<img src=a.jpg alt=x>',
        says: /^“a\.jpg” weighs 340 kB; the house style asks for 200 kB at most\.$/,
      },
      {
        html: '<img src=a.jpg alt=x>',
        files: { 'a.jpg': { bytes: 90_000, image: null } },
        style: { limits: { imageHeaviest: 50 } },
        at: '<img',
        says: /weighs 90 kB; the house style asks for 50 kB/,
      },
    ],
  },
})
