/** What a sheet's columns hold: recognised by what they are called and by what stands in them; an editor corrects it. */
import type { Sheet } from './sheet.ts'

export const columnRoles = [
  'address',
  'title',
  'description',
  'h1',
  'keyword',
  'secondary',
  'slug',
  'words',
  'status',
  'monthly',
  'position',
  'note',
] as const
export type ColumnRole = (typeof columnRoles)[number]
/** The column of each role, counted from 0; a role that no column has is left out. */
export type Columns = Partial<Record<ColumnRole, number>>

/** What a sheet is taken in for. */
export type SheetPurpose = 'pages' | 'suggestions' | 'phrases' | 'results'

/** Words that name a column, in the languages that sheets come in; the first group that one of them is in wins. */
const names: [ColumnRole, RegExp][] = [
  ['description', /\b(?:description|desc|beschreibung|beskrivelse|descripci[oó]n)\b/],
  ['h1', /\b(?:h1|heading|headline|[uü]berschrift|overskrift)\b/],
  ['title', /\b(?:titles?|titel|titre|t[ií]tulo)\b/],
  ['secondary', /\b(?:secondary|supporting|further|sekund[aä]re?|secondaires?)\b/],
  [
    'keyword',
    /\b(?:keywords?|key ?phrases?|phrases?|primary|search term|suchbegriff|mot[- ]cl[eé]|n[oø]gleord)\b/,
  ],
  ['slug', /\b(?:slug|new path|permalink)\b/],
  ['address', /\b(?:url|uri|address|page|link|landing|adresse|seite|lien|side|webseite)\b/],
  ['status', /\b(?:status|http|code)\b/],
  [
    'monthly',
    /\b(?:monthly|demand|volume|searches|search ?volume|suchvolumen|suchanfragen|volumes?|recherches|s[øo]gninger|b[uú]squedas)\b/,
  ],
  ['position', /\b(?:position|pos|rank\w*|place|platz|rang|placering|posici[oó]n)\b/],
  ['words', /\b(?:words?|word ?count|w[oö]rter|mots)\b/],
  ['note', /\b(?:notes?|comments?|remarks?|reason|why|notiz|kommentar)\b/],
]
const suggested =
  /\b(?:new|suggest\w*|propos\w*|recommend\w*|optimi[sz]\w*|draft|rewrite|neu\w*|vorschlag|nouveau|nouvelle|ny|nyt)\b/
const present = /\b(?:current|old|existing|present|now|live|today|alt\w*|aktuell\w*|actuel\w*|gammel)\b/
const length = /\b(?:length|len|chars?|characters?|pixels?|px|width|l[aä]nge)\b/

/** Texts of a column that show what it holds. */
const SAMPLE = 40
const looksLikeAddress = (cell: string): boolean =>
  /^(?:https?:\/\/\S+|\/\S*|[\w-]+(?:\.[\w-]+)+(?:\/\S*)?)$/i.test(cell)

/**
 * The columns of a sheet. Of several columns that could have a role, `suggestions` takes that which is called new or
 * suggested, `pages` that which is called present.
 */
export function recogniseColumns({ heading, rows }: Sheet, purpose: SheetPurpose): Columns {
  const columns: Columns = {}
  const ranks = new Map<ColumnRole, number>()
  for (const [i, name] of heading.entries()) {
    const said = name.toLowerCase().replace(/[_\-/()]+/g, ' ')
    const role = names.find(([, pattern]) => pattern.test(said))?.[0]
    if (role === undefined || length.test(said)) continue
    const rank = suggested.test(said) ? 2 : present.test(said) ? 0 : 1
    // A new address is a slug, and a present one says where the row belongs.
    const actual = role === 'address' && rank === 2 ? 'slug' : role
    const wanted = purpose === 'suggestions' && actual !== 'address' ? rank : 2 - rank
    if (wanted > (ranks.get(actual) ?? -1)) {
      ranks.set(actual, wanted)
      columns[actual] = i
    }
  }
  if (purpose === 'phrases') {
    columns.keyword ??= firstOfWords(heading, rows)
    return columns
  }
  if (!isAddressColumn(columns.address, rows)) {
    const byContent = heading.findIndex((_, i) => isAddressColumn(i, rows))
    if (byContent >= 0) columns.address = byContent
  }
  return columns
}

/** The first column in which words stand, and no numbers or addresses. */
function firstOfWords(heading: readonly string[], rows: readonly string[][]): number | undefined {
  const index = heading.findIndex((_, i) => {
    const cells = rows.slice(0, SAMPLE).flatMap((row) => row[i] || [])
    return cells.length > 0 && cells.every((cell) => /\p{L}/u.test(cell) && !looksLikeAddress(cell))
  })
  return index < 0 ? undefined : index
}

function isAddressColumn(index: number | undefined, rows: readonly string[][]): boolean {
  if (index === undefined) return false
  const cells = rows.slice(0, SAMPLE).flatMap((row) => row[index] || [])
  return cells.length > 0 && cells.filter(looksLikeAddress).length * 2 > cells.length
}
