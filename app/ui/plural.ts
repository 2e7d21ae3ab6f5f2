/** `1 page`, `1,200 pages`. */
export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`

/** The first few of a list in words, and how many more there are. */
export const someOf = (all: readonly string[], most = 3): string =>
  `${all.slice(0, most).join(', ')}${all.length > most ? ` and ${(all.length - most).toLocaleString('en')} more` : ''}`
