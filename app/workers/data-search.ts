/** The vocabulary searched by name and by meaning, for what a person picks from. */
import { classNames, isClass, propertiesOf, replacementOf } from '../../core/structured-data/vocabulary.ts'
import { fieldKind, type FieldKind } from './data-fields.ts'

export interface PropertyChoice extends FieldKind {
  description: string
}
let descriptions: Promise<Record<string, string>> | null = null
const loadDescriptions = () =>
  (descriptions ??= import('../../core/structured-data/vocabulary-descriptions.generated.json').then(
    (m) => m.default as Record<string, string>,
  ))

/** The vocabulary is written in American English; editors need not. */
const american = (words: string): string =>
  words
    .replace(/our\b/g, 'or')
    .replace(/is(e[sd]?|ing|ations?)\b/g, 'iz$1')
    .replace(/tre\b/g, 'ter')
    .replace(/logue\b/g, 'log')

/** Terms by name and by what schema.org says of them, the best first, at most 40; superseded ones are not found. */
async function searchTerms(
  names: readonly string[],
  words: string,
): Promise<{ name: string; description: string }[]> {
  const all = await loadDescriptions()
  const asked = [...new Set([words, american(words)].map((w) => w.trim().toLowerCase()))]
  const rankOf = (name: string): number => {
    if (asked[0] === '') return 3
    const lower = name.toLowerCase()
    return Math.min(
      ...asked.map((w) => {
        const joined = w.replace(/\s+/g, '')
        if (lower === joined) return 0
        if (lower.startsWith(joined)) return 1
        if (lower.includes(joined)) return 2
        return (all[name] ?? '').toLowerCase().includes(w) ? 3 : 4
      }),
    )
  }
  return names
    .filter((name) => replacementOf(name) === null)
    .map((name) => ({ name, rank: rankOf(name) }))
    .filter(({ rank }) => rank < 4)
    .sort((a, b) => a.rank - b.rank || (a.name < b.name ? -1 : 1))
    .slice(0, 40)
    .map(({ name }) => ({ name, description: all[name] ?? '' }))
}

/** Properties that things of these types may have. */
export async function searchProperties(types: string[], words: string): Promise<PropertyChoice[]> {
  const properties = new Set(types.filter(isClass).flatMap((t) => [...propertiesOf(t)]))
  return (await searchTerms([...properties], words)).map((found) => ({ ...fieldKind(found.name), ...found }))
}

export const searchTypes = (words: string): Promise<{ name: string; description: string }[]> =>
  searchTerms(classNames(), words)

/** What schema.org says of a term, its first sentence. */
export async function describeTerm(name: string): Promise<string> {
  const text = (await loadDescriptions())[name] ?? ''
  return /^.*?[.!?](?=\s|$)/.exec(text)?.[0] ?? text
}
