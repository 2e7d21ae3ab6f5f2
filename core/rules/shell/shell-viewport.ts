import { metasNamed } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/**
 * What of a viewport's content forbids zooming: `user-scalable` that is no yes, or a largest scale below 2. Values as
 * CSS Device Adaptation translates them: `yes` is 1, a device's measure is large, what is no number is next to nothing,
 * a negative scale is passed over.
 */
const forbidding = (part: string): boolean => {
  const at = part.indexOf('=')
  const name = part.slice(0, Math.max(0, at)).trim()
  if (!/^[a-z-]+$/i.test(name)) return false
  const value = part
    .slice(at + 1)
    .trim()
    .toLowerCase()
  const number = Number.parseFloat(value)
  const device = value === 'device-width' || value === 'device-height'
  if (name.toLowerCase() === 'user-scalable')
    return !(value === 'yes' || device || (!Number.isNaN(number) && Math.abs(number) >= 1))
  if (name.toLowerCase() === 'maximum-scale') {
    if (device || number < 0) return false
    return Number.isNaN(number) ? true : number < 2
  }
  return false
}

/** No viewport meta, or one that forbids zooming. */
export const shellViewport = rule({
  id: 'shell-viewport',
  family: 'shell',
  severity: 'flaw',
  sign: 'missing',
  name: 'Viewport missing, or zooming disabled',
  basis: 'WCAG 2.2, 1.4.4; W3C ACT rule b4f0c3',
  why: 'A phone shows the page as wide as on a desktop screen, or does not let readers zoom in.',
  mend: 'Put one viewport meta in the head: width=device-width, initial-scale=1.',
  needs: ['head'],
  message: ({ forbids }) =>
    forbids === ''
      ? 'The head has no viewport meta; “width=device-width, initial-scale=1” is expected.'
      : `“${forbids}” keeps readers from enlarging the page to twice its size.`,
  check({ page }, mark) {
    const metas = metasNamed(page, 'viewport')
    if (metas.length === 0)
      return mark(
        null,
        { forbids: '' },
        {
          label: 'Add the viewport',
          edits: [{ target: 'meta:viewport', edit: { value: 'width=device-width, initial-scale=1' } }],
        },
      )
    for (const meta of metas) {
      const parts = meta.content.split(/[,;]/)
      const bad = parts.filter(forbidding)
      if (bad.length === 0) continue
      const left = parts.filter((p) => !forbidding(p)).map((p) => p.trim())
      mark(
        meta,
        { forbids: bad.map((p) => p.trim()).join(', ') },
        {
          label: 'Allow zooming',
          edits: [
            {
              target: 'meta:viewport',
              at: meta.start,
              edit: { value: left.filter(Boolean).join(', ') || 'width=device-width, initial-scale=1' },
            },
          ],
        },
      )
    }
  },
  examples: {
    clean: [
      '<meta name=viewport content="width=device-width, initial-scale=1">',
      '<meta name=viewport content="width=device-width, maximum-scale=5, user-scalable=yes">',
    ],
    marked: [
      { html: '<title>x</title>', at: null, says: /no viewport meta/ },
      {
        html: '<meta name="viewport" content="width=device-width, user-scalable=no">',
        at: '<meta',
        says: /“user-scalable=no” keeps readers/,
      },
      {
        html: '<meta name="viewport" content="width=600, maximum-scale=1.5, user-scalable=0">',
        says: /“maximum-scale=1\.5, user-scalable=0”/,
      },
      { html: '<meta name="viewport" content="maximum-scale=1">', says: /maximum-scale=1/ },
    ],
  },
})
