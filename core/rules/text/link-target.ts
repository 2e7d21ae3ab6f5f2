import { rule } from '../rule.ts'

/** A link that goes nowhere, or a button that does nothing but go somewhere. */
export const linkTarget = rule({
  id: 'link-target',
  family: 'text',
  shownOn: { outline: 'text', galley: 'text', links: 'links' },
  severity: 'nit',
  sign: 'order',
  name: 'A link and a button are mixed up',
  basis: 'WHATWG HTML 4.5.1 and 4.10.6; common practice: a link goes somewhere, a button does something',
  why: 'Neither readers who use the keyboard nor search engines follow it.',
  mend: 'Give the link its address; make a button that leads to a page a link.',
  needs: ['links'],
  message: ({ tag, text, address }) =>
    tag === 'a'
      ? `The link “${text}” has no address.`
      : `The button “${text}” only leads to ${address}; a link is expected.`,
  check({ page }, mark) {
    for (const { tag, text, goesTo, hidden, start, end } of page.controls) {
      if (hidden || text === '') continue
      if (tag === 'a') mark({ start, end }, { tag, text, address: null })
      else if (goesTo !== null) mark({ start, end }, { tag, text, address: goesTo })
    }
  },
  examples: {
    clean: [
      '<a href="boats.html">Boats</a>',
      '<a id=top>To the top</a>',
      '<a name=top></a>',
      '<button onclick="openMenu()">Menu</button>',
      '<a role=button tabindex=0>Menu</a>',
    ],
    marked: [
      { html: '<p><a class=more>Boat times</a>', at: '<a', says: /The link “Boat times” has no address/ },
      {
        html: '<button onclick="location.href=\'/boats/\'">Boat times</button>',
        at: '<button',
        says: /“Boat times” only leads to \/boats\/; a link/,
      },
      { html: '<button onclick="window.open(\'/b\')">Boats</button>', says: /only leads to \/b/ },
    ],
  },
})
