import { primaryLanguage } from '../../words/stem.ts'
import { rule } from '../rule.ts'

/**
 * Words that say nothing of where a link leads, by language: those of WCAG's failure F84 and their like; the other
 * languages' from memory.
 */
const vague: Record<string, string[]> = {
  en: [
    'click here',
    'click',
    'here',
    'more',
    'read more',
    'learn more',
    'find out more',
    'see more',
    'more info',
    'more information',
    'details',
    'link',
    'this',
    'this page',
    'continue',
    'go',
    'this link',
    'continue reading',
  ],
  de: [
    'hier',
    'hier klicken',
    'klicken sie hier',
    'mehr',
    'mehr lesen',
    'weiterlesen',
    'mehr erfahren',
    'weiter',
    'details',
    'link',
    'zur seite',
  ],
  fr: [
    'ici',
    'cliquez ici',
    'cliquer ici',
    'plus',
    'lire la suite',
    'lire plus',
    'en savoir plus',
    'suite',
    'voir plus',
    'lien',
  ],
  es: [
    'aquí',
    'haga clic aquí',
    'haz clic aquí',
    'más',
    'leer más',
    'ver más',
    'más información',
    'enlace',
    'seguir leyendo',
  ],
  it: ['qui', 'clicca qui', 'leggi', 'leggi tutto', 'di più', 'scopri di più', 'continua', 'altro'],
  pt: ['aqui', 'clique aqui', 'mais', 'ler mais', 'leia mais', 'saiba mais', 'ver mais'],
  nl: ['hier', 'klik hier', 'meer', 'lees meer', 'lees verder', 'meer informatie', 'link'],
  da: ['her', 'klik her', 'mere', 'læs mere', 'se mere'],
  sv: ['här', 'klicka här', 'mer', 'läs mer', 'läs vidare', 'se mer'],
  nb: ['her', 'klikk her', 'mer', 'les mer', 'se mer'],
  fi: ['tästä', 'täältä', 'lue lisää', 'lisää', 'klikkaa tästä'],
  pl: ['tutaj', 'kliknij tutaj', 'więcej', 'czytaj więcej', 'czytaj dalej', 'zobacz więcej'],
}
const lists = new Map(Object.entries(vague).map(([lang, words]) => [lang, new Set(words)]))
const longestVague = Math.max(...Object.values(vague).flatMap((words) => words.map((w) => w.length)))
/** A text longer than this says something, whatever signs are around it. */
const LONGEST = 60
/** Whether a text is among words that say nothing, in whatever case and with whatever signs at its ends: “› Here!” is “here”. */
function saysOnly(text: string, words: ReadonlySet<string>): boolean {
  if (text.length > LONGEST) return false
  // Most texts have letters at both ends, and more words: nothing to be worked out.
  if (text.length > longestVague && letterAt(text, 0) && letterAt(text, text.length - 1)) return false
  const bare = text.toLowerCase().replace(/^[\s\p{P}\p{S}]+|[\s\p{P}\p{S}]+$/gu, '')
  return words.has(bare.normalize('NFC'))
}
/** Whether a letter of ASCII stands at a place. */
function letterAt(text: string, i: number): boolean {
  const small = text.charCodeAt(i) | 0x20
  return small >= 0x61 && small <= 0x7a
}

const address = /^(?:https?:\/\/|www\.)\S+$/i

/** A link whose words do not say where it leads. */
export const linkVague = rule({
  id: 'link-vague',
  family: 'text',
  shownOn: { outline: 'text', galley: 'text', links: 'links' },
  severity: 'nit',
  sign: 'alike',
  name: 'Link text that does not say where it leads',
  basis: 'WCAG 2.2, 2.4.4 and 2.4.9; failure F84',
  why: 'In a screen reader’s list of links they all sound the same, and the page they lead to gets no name.',
  mend: 'Let the link text name what it leads to.',
  needs: ['links'],
  message: ({ text, href }) => `The link to ${href} says only “${text}”.`,
  check({ page, style }, mark) {
    const lang = primaryLanguage(page.lang ?? style.language)
    const words = lists.get(lang === 'no' || lang === 'nn' ? 'nb' : lang)
    for (const link of page.links) {
      if (link.hidden || link.named || link.text === '' || link.text.length > 200) continue
      if ((words && saysOnly(link.text, words)) || address.test(link.text))
        mark(link, { text: link.text, href: link.href })
    }
  },
  examples: {
    clean: [
      '<html lang=en><a href=a>Boat times</a>',
      '<html lang=en><a href=a aria-label="Read more about tides">Read more</a>',
      '<html lang=fr><a href=a>here</a>',
      '<html lang=en><a href=a><img src=x alt="Boats"></a>',
      '<html lang=en><a href="mailto:a@b.example">a@b.example</a>',
    ],
    marked: [
      {
        html: '<html lang=en><p>For times click <a href="t.html">here</a>.</p>',
        at: '<a',
        says: /The link to t\.html says only “here”/,
      },
      { html: '<html lang=en><a href="t">Read more …</a>', says: /Read more …/ },
      { html: '<html lang=da><a href="t">Læs mere</a>', says: /Læs mere/ },
      {
        html: '<html lang=cy><a href="https://a.example/b">https://a.example/b</a>',
        says: /says only “https:\/\/a\.example\/b”/,
      },
    ],
  },
})
