/** schema.org's names as an editor reads them. */

/** `datePublished` → “date published”; a name of another vocabulary stays as it is written. */
export function inWords(name: string): string {
  if (name.includes(':')) return name
  return name
    .replace(/([a-z\d])([A-Z])/g, '$1 $2')
    .replace(/([A-Z])(?=[A-Z][a-z])/g, '$1 ')
    .split(' ')
    .map((w) => (/^[A-Z]{2,}$/.test(w) ? w : spelt.test(w) ? w.toUpperCase() : w.toLowerCase()))
    .join(' ')
}

/** Words that are spelt out, which schema.org writes as any other. */
const spelt = /^(?:url|sku|mpn|isbn|issn|gtin\d*)$/i

/** The same at the beginning of a label: “Date published”. */
export function asLabel(name: string): string {
  const words = inWords(name)
  return name.includes(':') ? words : words.slice(0, 1).toUpperCase() + words.slice(1)
}

/** `offers.price|offers.priceSpecification`, as the features' data file writes it → “price or price specification of the offers”. */
export function lackInWords(path: string): string {
  let words = lacksInWords.get(path)
  if (words === undefined) lacksInWords.set(path, (words = lackAnew(path)))
  return words
}
/** So many are there as the features ask for, and they are asked for at every page. */
const lacksInWords = new Map<string, string>()
function lackAnew(path: string): string {
  const owners: string[] = []
  const byOwner: string[][] = []
  for (const one of path.split('|')) {
    const names = one.split('.')
    const owner = names
      .slice(0, -1)
      .reverse()
      .map((n) => ` of the ${inWords(n)}`)
      .join('')
    if (owners.at(-1) !== owner || owners.length === 0) {
      owners.push(owner)
      byOwner.push([])
    }
    byOwner.at(-1)!.push(inWords(names.at(-1)!))
  }
  return owners.map((owner, i) => anyOf(byOwner[i]!) + owner).join(' or ')
}
const anyOf = (all: string[]) =>
  all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} or ${all.at(-1)}`
