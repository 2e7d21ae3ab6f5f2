/** Slugs: made from words, made safe as they are typed. */
import { languageOf, primaryLanguage, wordsOf } from '../words/stem.ts'

/**
 * Letters that lose more than an accent. Latin: as in ICAO Doc 9303 (from memory); Greek: ELOT 743; Russian: BGN/PCGN
 * 1947 without its apostrophes; both from memory.
 */
const latinLetters: Record<string, string> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  å: 'a',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ħ: 'h',
  ı: 'i',
  ŋ: 'ng',
  ŧ: 't',
}
/** Languages in which a letter is written with two others where it cannot be had. */
const byLanguage: Record<string, Record<string, string>> = {
  de: { ä: 'ae', ö: 'oe', ü: 'ue' },
  da: { ø: 'oe', å: 'aa' },
  nb: { ø: 'oe', å: 'aa' },
  nn: { ø: 'oe', å: 'aa' },
  no: { ø: 'oe', å: 'aa' },
  uk: { г: 'h', ґ: 'g', и: 'y', є: 'ye', і: 'i', ї: 'yi', й: 'y' },
  bg: { щ: 'sht', ъ: 'a', х: 'h' },
}
const cyrillic: Record<string, string> = Object.fromEntries(
  `а:a б:b в:v г:g д:d е:e ё:yo ж:zh з:z и:i й:y к:k л:l м:m н:n о:o п:p р:r с:s т:t у:u ф:f х:kh ц:ts ч:ch ш:sh
   щ:shch ъ: ы:y ь: э:e ю:yu я:ya і:i ї:yi є:ye ґ:g ђ:dj ј:j љ:lj њ:nj ћ:c џ:dz ў:u ѓ:gj ќ:kj ѕ:dz`
    .split(/\s+/)
    .map((pair) => pair.split(':') as [string, string]),
)
const greek: Record<string, string> = Object.fromEntries(
  `α:a β:v γ:g δ:d ε:e ζ:z η:i θ:th ι:i κ:k λ:l μ:m ν:n ξ:x ο:o π:p ρ:r σ:s ς:s τ:t υ:y φ:f χ:ch ψ:ps ω:o`
    .split(/\s+/)
    .map((pair) => pair.split(':') as [string, string]),
)

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}+/gu, '')
const voiceless = /^[θκξπστφχψς]/

/** Greek words with their digraphs: αυ, ευ, ηυ before a voiceless letter or the end end in f, else in v. */
function fromGreek(word: string): string {
  return plain(
    word.replace(/([αεη])[ύυ](?=(\p{L})?)/gu, (_, first: string, next?: string) => {
      const f = next === undefined || voiceless.test(plain(next)) ? 'f' : 'v'
      return `${greek[first]}${f}`
    }),
  )
    .replace(/ου/g, 'ou')
    .replace(/γγ/g, 'ng')
    .replace(/γξ/g, 'nx')
    .replace(/γχ/g, 'nch')
    .replace(/^μπ/g, 'b')
    .replace(/μπ$/g, 'b')
    .replace(/μπ/g, 'mp')
    .replace(/[α-ως]/g, (c) => greek[c] ?? '')
}

/** A word in lower case as ASCII letters and digits, by the page's language; "" where its script cannot be put so. */
export function transliterate(word: string, lang: string | null): string {
  const ofLanguage = byLanguage[primaryLanguage(lang)] ?? {}
  const lower = word.normalize('NFC').toLowerCase()
  const letters = /\p{Script=Greek}/u.test(lower) ? fromGreek(lower) : lower
  let out = ''
  for (const c of letters) out += ofLanguage[c] ?? cyrillic[c] ?? latinLetters[c] ?? plain(c)
  return out.replace(/[^a-z0-9]/g, '')
}

/** A text's words in ASCII, as an address and a keyword in another script are compared by. */
export const plainWords = (text: string, lang: string | null): string =>
  text
    .split(/[^\p{L}\p{N}\p{M}]+/u)
    .map((w) => transliterate(w, lang))
    .filter(Boolean)
    .join(' ')

export interface SlugOptions {
  lang: string | null
  /** At most this many words. */
  words: number
  /** At most this many characters; words that would go over are left out. */
  characters: number
  /** Words that stay although they are filler, as those of the keyword. */
  keep?: string
}

/** A slug from a title or a keyword: filler words dropped unless they are all there is, in ASCII, joined by hyphens; "" where nothing can be put so. */
export function makeSlug(text: string, { lang, words, characters, keep = '' }: SlugOptions): string {
  const language = languageOf(lang)
  const kept = new Set(wordsOf(keep).map((w) => w.word))
  const all = wordsOf(text).map((w) => w.word)
  const content = all.filter((w) => kept.has(w) || !language.isStopWord(w))
  const parts = (content.length > 0 ? content : all)
    .map((w) => transliterate(w.replace(/'/g, ''), lang))
    .filter(Boolean)
  let slug = ''
  for (const part of parts.slice(0, words)) {
    const next = slug ? `${slug}-${part}` : part
    if (next.length > characters && slug) break
    slug = next.slice(0, characters)
  }
  return slug
}

/** Names that some systems keep for devices: no file can be called so there. From memory. */
const reserved = /^(?:con|prn|aux|nul|com\d|lpt\d)$/i
/** A language's own letters may stand in an address, encoded (RFC 3987); of ASCII, RFC 3986's unreserved characters. */
const unfit = /[^A-Za-z0-9\-._~\p{L}\p{N}\p{M}]/gu

/**
 * What is typed as one segment, made fit for an address and for a file's name: white space becomes a hyphen, what may
 * not stand there goes. "" where nothing is left.
 */
export function safeSegment(typed: string): string {
  const safe = typed
    .normalize('NFC')
    .toWellFormed()
    .trim()
    .replace(/\s+/g, '-')
    .replace(unfit, '')
    .replace(/^\.+|\.+$/g, '')
    .slice(0, 120)
    .toWellFormed()
    .replace(/\ufffd/g, '')
  return reserved.test(safe) ? `${safe}-page` : safe
}
