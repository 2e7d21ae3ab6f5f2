/** Tokens in titles and descriptions, written as ICU MessageFormat writes placeholders: `{page} | {site}`. */

export const tokenNames = ['page', 'site', 'section', 'year', 'month', 'h1', 'author', 'price'] as const
export type TokenName = (typeof tokenNames)[number]
/** What a page gives for each token; null or "" where it has nothing. */
export type TokenValues = Partial<Record<TokenName, string | null>>

const pattern = /\{(page|site|section|year|month|h1|author|price)\}/g

export const hasTokens = (text: string): boolean => text.search(pattern) >= 0

/** Text with its tokens filled; `unfilled` names those for which the page has nothing, left standing as typed. */
export function fillTokens(text: string, values: TokenValues): { text: string; unfilled: TokenName[] } {
  const unfilled = new Set<TokenName>()
  const filled = text.replace(pattern, (token, name: TokenName) => {
    const value = values[name]
    if (value) return value
    unfilled.add(name)
    return token
  })
  return { text: filled, unfilled: [...unfilled] }
}

/** The year and the month's name of a date YYYY-MM-DD, the month in the page's language. */
export function dateTokens(date: string, lang: string | null): Pick<TokenValues, 'year' | 'month'> {
  const key = `${date} ${lang}`
  const known = dated.get(key)
  if (known) return known
  const tokens = { year: date.slice(0, 4), month: monthName(date, lang) }
  if (dated.size > 500) dated.clear()
  dated.set(key, tokens)
  return tokens
}
const dated = new Map<string, { year: string; month: string }>()

function monthName(date: string, lang: string | null): string {
  const [year, month] = date.split('-')
  const day = new Date(Date.UTC(Number(year), Number(month) - 1, 15))
  const name = (tag: string) => new Intl.DateTimeFormat(tag, { month: 'long', timeZone: 'UTC' }).format(day)
  try {
    return name(lang ?? 'en')
  } catch {
    return name('en')
  }
}
