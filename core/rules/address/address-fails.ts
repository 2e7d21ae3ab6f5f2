import { rule } from '../rule.ts'

/** The server answers a page's address with an error. */
export const addressFails = rule({
  id: 'address-fails',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'served' },
  severity: 'blocker',
  sign: 'missing',
  name: 'The address fails',
  basis: 'RFC 9110, 15.5 and 15.6',
  why: 'Readers get an error page, and search engines drop the address from their results.',
  mend: 'Bring the page back, redirect its address to the page that takes its place, or take the links to it away.',
  needs: ['address'],
  message: ({ status, date }) => `The server answered ${status} on ${date}: an error, not a page.`,
  check({ page: { served } }, mark) {
    if (served && served.status >= 400) mark(null, { status: served.status, date: served.date })
  },
  examples: {
    clean: ['<p>a file</p>', { html: '<p>x</p>', served: { status: 200 } }],
    marked: [
      { html: '<p>Not found</p>', served: { status: 404 }, says: /answered 404 on 2026-11-23/ },
      { html: '<p>Broken</p>', served: { status: 503 }, says: /answered 503/ },
    ],
  },
})
