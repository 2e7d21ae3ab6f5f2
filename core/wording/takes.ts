/** Wordings drafted from the page itself, for an editor to start from; each says where it came from. */
import { findKeyword, hasKeyword, type Keyword } from '../words/match.ts'
import { languageOf } from '../words/stem.ts'
import { measure, type Slots } from '../measure/snippet.ts'
import { outlineOf, titleOf, type PageFacts } from '../page/read/facts.ts'
import { paragraphsOf, sentencesOf } from './shown-instead.ts'

export interface DraftedTake {
  text: string
  /** In words: what it was made of. */
  from: string
}

export interface TakeContext {
  page: PageFacts
  keyword: Keyword | null
  slots: Slots
  /** What stands behind a page's words in titles of this house, such as ` | Farrowskerry Light`; "" where nothing does. */
  suffix: string
  /** The present title without that suffix. */
  own: string
  lang: string | null
}

const capital = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)

/** Words that a title loses without loss, besides the language's stop words at its beginning. From memory. */
const padding =
  /\b(?:welcome to|all about|everything (?:you need )?to know about|the complete|the ultimate|official|very|really|simply|home ?page(?: of)?)\b\s*/giu

/** Titles from the H1, the keyword and the present title; those that fit uncut first. Never the present title itself. */
export function draftTitles({ page, keyword, slots, suffix, own, lang }: TakeContext): DraftedTake[] {
  const present = titleOf(page)?.text ?? ''
  const takes: DraftedTake[] = []
  const add = (text: string, from: string) => {
    const wording = text.replace(/\s+/g, ' ').trim()
    if (wording && wording !== present && !takes.some((t) => t.text === wording))
      takes.push({ text: wording, from })
  }
  const fits = (text: string) => measure(text, 'title', slots).wide.state === 'fits'
  const h1 = outlineOf(page).find((h) => h.level === 1 && h.text)?.text ?? ''
  if (h1) {
    if (keyword && !hasKeyword(h1, keyword)) {
      add(
        `${capital(keyword.text)}: ${h1}${suffix}`,
        suffix ? 'the keyword, the H1 and the site’s name' : 'the keyword and the H1',
      )
      if (!fits(`${capital(keyword.text)}: ${h1}${suffix}`))
        add(`${capital(keyword.text)}: ${h1}`, 'the keyword and the H1')
    }
    add(h1 + suffix, suffix ? 'the H1 and the site’s name' : 'the H1')
  }
  if (own && suffix && !fits(own + suffix) && fits(own)) add(own, 'the title without the site’s name')
  else if (own && suffix && fits(own + suffix)) add(own + suffix, 'the title and the site’s name')
  if (own && !fits(present)) {
    for (const tail of suffix ? [suffix, ''] : ['']) {
      const shorter = shorten(own, tail, keyword, lang, fits)
      if (shorter) add(shorter + tail, 'the title without filler words')
    }
    const part = own.split(/\s*[:–—|]\s+/)[0]!
    if (part !== own && fits(part)) add(part, 'the title up to its first break')
  }
  return takes.sort((a, b) => Number(fits(b.text)) - Number(fits(a.text))).slice(0, 5)
}

/** A title with its padding and then its stop words dropped, from the end, until it fits; null where that is not enough. */
function shorten(
  own: string,
  tail: string,
  keyword: Keyword | null,
  lang: string | null,
  fits: (t: string) => boolean,
): string | null {
  let text = capital(own.replace(padding, '').trim())
  if (text !== own && text && fits(text + tail)) return text
  const language = languageOf(lang)
  const kept = keyword ? findKeyword(text, keyword).flatMap((m) => m.words) : []
  const words = [...text.matchAll(/\S+/g)].map((m) => ({ word: m[0], start: m.index }))
  for (const { word, start } of [...words].reverse()) {
    if (start === 0 || kept.some((k) => k.start === start)) continue
    if (!language.isStopWord(word.toLowerCase()) || /^(?:not|no|never|without)$/i.test(word)) continue
    text = (text.slice(0, start) + text.slice(start + word.length)).replace(/ {2,}/g, ' ')
    if (fits(text + tail)) return text.trim()
  }
  return null
}

/** The first sentences of a page's first paragraph that has one that fits, as many as fit uncut; null where none does. */
export function firstSentences(page: PageFacts, slots: Slots): string | null {
  const fits = (text: string) => measure(text, 'description', slots).wide.state === 'fits'
  for (const paragraph of paragraphsOf(page)) {
    const [first, ...rest] = sentencesOf(paragraph).map((sentence) => sentence.text)
    if (first === undefined || !fits(first)) continue
    let text = first
    for (const sentence of rest) {
      if (!fits(`${text} ${sentence}`)) break
      text += ` ${sentence}`
    }
    return text
  }
  return null
}

/** Descriptions from the page's best sentences: with the keyword before others, early ones before late, as many as fit uncut. */
export function draftDescriptions({ page, keyword, slots }: TakeContext): DraftedTake[] {
  const present = page.metas.find((m) => m.name === 'description' && m.inHead)?.content ?? ''
  const fits = (text: string) => measure(text, 'description', slots).wide.state === 'fits'
  const candidates: { text: string; score: number; from: string }[] = []
  for (const [i, paragraph] of paragraphsOf(page).slice(0, 40).entries()) {
    const sentences = sentencesOf(paragraph).map((s) => s.text)
    sentences.forEach((sentence, k) => {
      if (!/[.!?…]["”’)]*$/u.test(sentence) || !fits(sentence)) return
      let text = sentence
      let used = 1
      while (sentences[k + used] && fits(`${text} ${sentences[k + used]}`))
        text += ` ${sentences[k + used++]}`
      if (!/[.!?…]["”’)]*$/u.test(text)) text = sentence
      const has = keyword !== null && hasKeyword(text, keyword)
      const length = Math.min(text.length, 150) / 150
      const begins =
        /^(?:\p{Lu}|\p{N}|["“‘])/u.test(text) && !/^(?:It|This|That|They|He|She|But|And|So|Then)\b/.test(text)
      candidates.push({
        text,
        score: (has ? 4 : 0) + length * 2 + (begins ? 1 : 0) - i * 0.15 - k * 0.1,
        from: `paragraph ${i + 1}${has ? ', with the keyword' : ''}`,
      })
    })
  }
  const takes: DraftedTake[] = []
  for (const { text, from } of candidates.sort((a, b) => b.score - a.score)) {
    if (
      text === present ||
      takes.some((t) => t.text.includes(text.slice(0, 60)) || text.includes(t.text.slice(0, 60)))
    )
      continue
    takes.push({ text, from })
    if (takes.length === 3) break
  }
  return takes
}
