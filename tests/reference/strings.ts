/** Strings to measure: words of thirteen languages with digits, punctuation and capitals, by a fixed seed. */
import { stopwords as da } from '@orama/stopwords/danish'
import { stopwords as nl } from '@orama/stopwords/dutch'
import { stopwords as en } from '@orama/stopwords/english'
import { stopwords as fi } from '@orama/stopwords/finnish'
import { stopwords as fr } from '@orama/stopwords/french'
import { stopwords as de } from '@orama/stopwords/german'
import { stopwords as el } from '@orama/stopwords/greek'
import { stopwords as hu } from '@orama/stopwords/hungarian'
import { stopwords as it } from '@orama/stopwords/italian'
import { stopwords as pt } from '@orama/stopwords/portuguese'
import { stopwords as ru } from '@orama/stopwords/russian'
import { stopwords as es } from '@orama/stopwords/spanish'
import { stopwords as sv } from '@orama/stopwords/swedish'

const lists = [da, nl, en, fi, fr, de, el, hu, it, pt, ru, es, sv]
const between = [
  ' ',
  ' ',
  ' ',
  ' ',
  ' ',
  ' ',
  ', ',
  ' – ',
  ' | ',
  ': ',
  ' & ',
  '-',
  '/',
  '. ',
  '? ',
  ' (',
  ') ',
  '’',
  ' “',
  '” ',
]
const extra = [
  'Tavern',
  'WAVE',
  'To',
  'AVA',
  '11:11',
  '2026',
  '£1,640',
  '5 %',
  'LT',
  'P.',
  'Yes',
  'ŁÓDŹ',
  'Ýmir',
  'Ťava',
  'Αυγή',
  'Ўсё',
  'Ðó',
  'ſ',
  'Ệ',
  '№ 7',
  '12°',
  '“Te”',
  'Vo',
  'Wy',
  '…',
  '—',
  '3½',
  'façade',
  'Ångström',
]

/** A linear congruential generator: the same strings on every run. */
function generator(seed: number) {
  let state = seed
  return (n: number): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * n)
  }
}

export function sampleStrings(count: number, words: [number, number], seed = 7): string[] {
  const pick = generator(seed)
  return Array.from({ length: count }, (_, i) => {
    const list = lists[i % lists.length]!
    const n = words[0] + pick(words[1] - words[0])
    let text = ''
    for (let k = 0; k < n; k++) {
      let word = pick(6) === 0 ? extra[pick(extra.length)]! : list[pick(list.length)]!
      if (pick(3) === 0) word = word.charAt(0).toUpperCase() + word.slice(1)
      if (pick(14) === 0) word = word.toUpperCase()
      text += (k === 0 ? '' : between[pick(between.length)]!) + word
    }
    return text
  })
}
