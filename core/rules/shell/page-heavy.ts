import { rule, type Values } from '../rule.ts'
import { inBytes } from '../../site/in-bytes.ts'
import { weightOf } from '../../site/page-weight.ts'

const parts = (weights: Values): string =>
  Object.entries(weights)
    .filter(([, bytes]) => Number(bytes) > 0)
    .map(([what, bytes]) => `${what} ${inBytes(Number(bytes))}`)
    .join(', ')

/** A page that weighs more, with its own files, than the house allows. */
export const pageHeavy = rule({
  id: 'page-heavy',
  family: 'shell',
  shownOn: { head: 'weight' },
  severity: 'nit',
  sign: 'too-much',
  name: 'Heavy page',
  basis: 'common practice, no source: 2 MB with style sheets, scripts and images',
  why: 'A heavy page is left before it is there, and costs readers who pay by the byte.',
  mend: 'See under “Phone and weight” what weighs most; smaller images help first.',
  needs: ['head', 'images'],
  message: ({ total, page, style, script, image, most, absent }) =>
    `The page and its files weigh ${inBytes(Number(total))} (${parts({ page: page!, 'style sheets': style!, scripts: script!, images: image! })}); the house style asks for ${inBytes(Number(most))} at most.${Number(absent) > 0 ? ` ${absent === 1 ? 'One more file is' : `${absent} more files are`} not of the site and not counted.` : ''}`,
  check({ page, site, style: { limits } }, mark) {
    const most = limits.pageHeaviest * 1_000
    const { total, page: itself, style, script, image, absent } = weightOf(page, site)
    if (total > most) mark(null, { total, page: itself, style, script, image, most, absent })
  },
  examples: {
    clean: [
      '<p>Light.',
      { html: '<img src=a.jpg alt=x>', files: { 'a.jpg': { bytes: 1_900_000, image: null } } },
      { html: '<script src=https://elsewhere.example/a.js></script>' },
    ],
    marked: [
      {
        html: '<link rel=stylesheet href=s.css><script src=s.js></script><img src=a.jpg alt=x><img src=a.jpg alt=x>',
        files: {
          's.css': { bytes: 300_000, image: null },
          's.js': { bytes: 700_000, image: null },
          'a.jpg': { bytes: 1_400_000, image: null },
        },
        at: null,
        says: /^The page and its files weigh 2\.4 MB \(page \d+ bytes, style sheets 300 kB, scripts 700 kB, images 1\.4 MB\); the house style asks for 2\.0 MB at most\.$/,
      },
      {
        html: '<script src=https://elsewhere.example/a.js></script><img src=a.jpg alt=x>',
        files: { 'a.jpg': { bytes: 2_000_001, image: null } },
        at: null,
        says: /One more file is not of the site and not counted\.$/,
      },
    ],
  },
})
