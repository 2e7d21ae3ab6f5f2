/** Where to work next: what could be won, set against how the site's own other pages do at the same place. An estimate. */
import { queryKey } from '../addresses/addresses.ts'
import { addTo, noSums, type DayOfPage, type Sums } from './statistics.ts'

export interface Chance {
  page: string
  /** Null: the page in all its results. */
  phrase: string | null
  position: number
  impressions: number
  ctr: number
  /** Clicks ÷ impressions of the site's other pages at this place, or at the place that could be had. */
  expected: number
  /** Clicks that could be had more, over the days that the statistics are of. */
  won: number
}

/** Below so many impressions a share says nothing. Common practice, no source. */
const FEWEST_IMPRESSIONS = 100
const DEEPEST = 20
/** A phrase within reach: the first results can be had with work on the page. Common practice, no source. */
const REACH = { from: 4, to: 15, place: 3 }

export interface Chances {
  /** Pages that are clicked less than the site's others at the same place, the most to be won first. */
  lessClicked: Chance[]
  /** Phrases for which a page stands within reach of the first results. */
  withinReach: Chance[]
}

export function chancesOf(rows: readonly DayOfPage[]): Chances {
  const pages = new Map<string, Sums>()
  const phrases = new Map<string, Sums & { page: string; phrase: string }>()
  const totals = new Set(
    rows.filter((row) => row.phrase === null).map((row) => `${row.date} ${queryKey(row.page)}`),
  )
  for (const { date, page, phrase, clicks, impressions, position } of rows) {
    const key = queryKey(page)
    const more = { clicks, impressions, places: position * impressions }
    if (phrase !== null) {
      const of = `${key} ${phrase.toLowerCase()}`
      let sums = phrases.get(of)
      if (!sums) phrases.set(of, (sums = { ...noSums(), page: key, phrase }))
      addTo(sums, more)
    }
    if (phrase === null || !totals.has(`${date} ${key}`)) {
      let sums = pages.get(key)
      if (!sums) pages.set(key, (sums = noSums()))
      addTo(sums, more)
    }
  }
  const curve = clicksByPlace(pages)
  const lessClicked: Chance[] = []
  for (const [page, sums] of pages) {
    const chance = chanceAt(page, null, sums, curve.without(sums))
    if (chance && chance.won >= 1) lessClicked.push(chance)
  }
  const withinReach: Chance[] = []
  for (const { page, phrase, ...sums } of phrases.values()) {
    const place = sums.places / sums.impressions
    if (!(place >= REACH.from && place <= REACH.to)) continue
    const chance = chanceAt(page, phrase, sums, curve.at(REACH.place))
    if (chance && chance.won >= 1) withinReach.push(chance)
  }
  const byWon = (a: Chance, b: Chance) => b.won - a.won || (a.page < b.page ? -1 : 1)
  return { lessClicked: lessClicked.sort(byWon), withinReach: withinReach.sort(byWon) }
}

function chanceAt(page: string, phrase: string | null, sums: Sums, expected: number | null): Chance | null {
  const { clicks, impressions, places } = sums
  if (impressions < FEWEST_IMPRESSIONS || expected === null) return null
  const ctr = clicks / impressions
  const won = impressions * (expected - ctr)
  return { page, phrase, position: places / impressions, impressions, ctr, expected, won }
}

/** Clicks an impression at each place, from the pages' own sums. */
function clicksByPlace(pages: ReadonlyMap<string, Sums>) {
  const places = Array.from({ length: DEEPEST + 1 }, noSums)
  const placeOf = ({ places: weighted, impressions }: Sums) =>
    impressions > 0 ? Math.max(1, Math.round(weighted / impressions)) : DEEPEST + 1
  for (const sums of pages.values()) if (placeOf(sums) <= DEEPEST) addTo(places[placeOf(sums)]!, sums)
  const share = ({ clicks, impressions }: Sums) =>
    impressions >= FEWEST_IMPRESSIONS ? clicks / impressions : null
  return {
    /** What others get where a page stands, that page itself left out; null where too little is known. */
    without(own: Sums): number | null {
      const place = placeOf(own)
      if (place > DEEPEST) return null
      const rest = { ...places[place]! }
      addTo(rest, { clicks: -own.clicks, impressions: -own.impressions, places: -own.places })
      return share(rest)
    },
    /** At a place, or the nearest above it of which enough is known. */
    at(place: number): number | null {
      for (let near = place; near >= 1; near--) {
        const nearShare = share(places[near]!)
        if (nearShare !== null) return nearShare
      }
      return null
    },
  }
}
