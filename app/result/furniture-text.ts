/** A date as results write it before a description, in the page's language; null where the page's data has none. */
export function shownDate(date: string | null, lang: string | null): string | null {
  const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})/.exec(date ?? '') ?? []
  if (!year) return null
  const at = new Date(Date.UTC(Number(year), Number(month) - 1, Number(day)))
  if (Number.isNaN(at.getTime())) return null
  const options = { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' } as const
  try {
    return new Intl.DateTimeFormat(lang ?? 'en-GB', options).format(at)
  } catch {
    return new Intl.DateTimeFormat('en-GB', options).format(at)
  }
}
