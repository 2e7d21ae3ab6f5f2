import { rule } from '../rule.ts'

/** A link or a button that says nothing. */
export const linkName = rule({
  id: 'link-name',
  family: 'text',
  shownOn: { outline: 'text', galley: 'text', links: 'links' },
  severity: 'flaw',
  sign: 'missing',
  name: 'A link or button without a name',
  basis: 'WCAG 2.2, 2.4.4 and 4.1.2; W3C ACT rules c487ae and 97a4e1',
  why: 'A screen reader says only that there is a link, or reads its address aloud.',
  mend: 'Put words in it, give its image an alternative text, or name it with aria-label.',
  needs: ['links'],
  message: ({ tag, href }) => (tag === 'a' ? `The link to “${href}” has no name.` : 'A button has no name.'),
  check({ page }, mark) {
    for (const link of page.links)
      if (!link.hidden && !link.named && link.text === '' && !link.untabbed)
        mark(link, { tag: 'a', href: link.href })
    for (const control of page.controls)
      if (control.tag === 'button' && !control.hidden && !control.named && control.text === '')
        mark(control, { tag: 'button', href: null })
  },
  examples: {
    clean: [
      '<a href=a>Boats</a>',
      '<a href=a><img src=x alt="Boats"></a>',
      '<a href=a aria-label="Boats"></a>',
      '<a href=a hidden></a>',
      '<a name=top></a>',
      '<button title="Search"></button>',
      '<svg><a href=a><text>Boats</text></a></svg>',
    ],
    marked: [
      {
        html: '<a href="boats.html"><img src=x alt=""></a>',
        at: '<a',
        says: /link to “boats\.html” has no name/,
      },
      { html: '<a href=b> </a>', says: /link to “b”/ },
      { html: '<button><i class=icon></i></button>', at: '<button', says: /A button has no name/ },
    ],
  },
})
