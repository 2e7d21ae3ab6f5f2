import { rule } from '../rule.ts'

/** What a phone is wide, in px. Common practice, no source: the phone that narrow results are measured for. */
const PHONE = 390

/** A width fixed in the markup that no phone has. */
export const pageFixed = rule({
  id: 'page-fixed',
  family: 'shell',
  severity: 'nit',
  sign: 'too-much',
  name: 'Wider than a phone',
  basis: 'common practice, no source: a phone of 390 px; WCAG 1.4.10, reflow',
  why: 'On a phone the page must be pushed sideways to be read, or is shown too small.',
  mend: 'Take the fixed width out, or let a greatest width in per cent give way (max-width: 100%).',
  needs: ['head'],
  message: ({ tag, px, by, more }) =>
    `${by === 'style' ? 'The style' : 'The width attribute'} of a “${tag}” fixes ${Number(px).toLocaleString('en')} px; a phone is ${PHONE} px wide.${Number(more) > 0 ? ` So ${more === 1 ? 'does one more element' : `do ${more} more elements`}.` : ''}`,
  check({ page }, mark) {
    const wide = page.fixedWidths.filter(({ px }) => px > PHONE)
    const [first] = wide
    if (first) mark(first, { tag: first.tag, px: first.px, by: first.by, more: wide.length - 1 })
  },
  examples: {
    clean: [
      '<table width=390><tr><td>Tides',
      '<table width="100%"><tr><td>Tides',
      '<img src=a.jpg alt=x width=1200 height=800>',
      '<div style="width: 800px; max-width: 100%">Tides</div>',
      '<div style="display:none;width:800px">Tides</div>',
      '<div style="max-width: 800px">Tides</div>',
    ],
    marked: [
      {
        html: '<p>Tides</p><table width=800><tr><td width="500">High',
        at: '<table width=800>',
        says: /^The width attribute of a “table” fixes 800 px; a phone is 390 px wide\. So does one more element\.$/,
      },
      {
        html: '<main><div style="color:navy; min-width:1020PX !important">Tides</div></main>',
        at: '<div',
        says: /^The style of a “div” fixes 1,020 px; a phone is 390 px wide\.$/,
      },
    ],
  },
})
