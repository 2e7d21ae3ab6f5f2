import { canonicalOf } from '../../page/read/facts.ts'
import { isWebAddress } from '../../addresses/addresses.ts'
import { rule } from '../rule.ts'

/** A canonical that is absolute and not an address of the web. */
export const canonicalScheme = rule({
  id: 'canonical-scheme',
  family: 'address',
  shownOn: { snippet: 'trail', head: 'links' },
  severity: 'flaw',
  sign: 'order',
  name: 'The canonical is not a web address',
  basis: 'RFC 6596; common practice: http or https',
  why: 'Engines cannot open it, so the page names nothing as its own address.',
  mend: 'Write the page’s own address.',
  needs: ['head'],
  message: ({ href, expected }) =>
    `The canonical is “${href}”; an http or https address is expected${expected === null ? '' : `, such as ${expected}`}.`,
  check({ page, baseKnown }, mark) {
    const canonical = canonicalOf(page)
    if (!canonical || !/^[a-z][a-z0-9+.-]*:/i.test(canonical.href) || isWebAddress(canonical.href)) return
    const expected = baseKnown && isWebAddress(page.url) ? page.url : null
    mark(
      canonical,
      { href: canonical.href, expected },
      expected === null
        ? undefined
        : {
            label: 'Write the page’s own address',
            edits: [{ target: 'canonical', edit: { value: expected } }],
          },
    )
  },
  examples: {
    clean: [
      '<link rel=canonical href=https://site.example/page.html>',
      '<link rel=canonical href=/page.html>',
      '<p>none',
    ],
    marked: [
      {
        html: '<link rel="canonical" href="file:///home/ada/site/page.html">',
        at: '<link',
        says: /“file:\/\/\/home\/ada\/site\/page\.html”; an http or https address is expected, such as https:\/\/site/,
      },
      { html: '<link rel=canonical href="javascript:alert(1)">', says: /“javascript:alert\(1\)”/ },
    ],
  },
})
