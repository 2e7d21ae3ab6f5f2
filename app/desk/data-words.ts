/** schema.org's names as an editor reads them. */

/** `datePublished` → “Date published”. */
export function inWords(name: string): string {
  if (name.includes(':')) return name
  const words = name
    .replace(/([a-z\d])([A-Z])/g, '$1 $2')
    .replace(/([A-Z]+)([A-Z][a-z])/g, '$1 $2')
    .split(' ')
    .map((w) => (/^[A-Z]{2,}$/.test(w) ? w : w.toLowerCase()))
    .join(' ')
  return words.slice(0, 1).toUpperCase() + words.slice(1)
}

/** What the page may be described as, in words. */
export const kindNames: Record<string, string> = {
  FAQPage: 'Questions and answers',
  BreadcrumbList: 'Breadcrumb',
  Article: 'Article',
  Product: 'Product',
  Event: 'Event',
  Recipe: 'Recipe',
  LocalBusiness: 'Local business',
  JobPosting: 'Job',
  Course: 'Course',
  VideoObject: 'Video',
  Organization: 'Organisation',
  WebSite: 'Site',
  WebPage: 'Page',
}

export const additionNames: Record<string, string> = {
  date: 'a date',
  rating: 'a rating',
  price: 'a price',
  trail: 'a trail in place of the address',
  questions: 'questions with their answers',
}

/** An ISO 8601 duration as hours and minutes; null where it says more than that. */
export function hoursAndMinutes(text: string): { hours: number; minutes: number } | null {
  const m = /^PT(?:(\d+)H)?(?:(\d+)M)?$/.exec(text.trim())
  return m && text !== 'PT' ? { hours: Number(m[1] ?? 0), minutes: Number(m[2] ?? 0) } : null
}
export const durationOf = (hours: number, minutes: number): string =>
  hours + minutes === 0 ? '' : `PT${hours ? `${hours}H` : ''}${minutes ? `${minutes}M` : ''}`
