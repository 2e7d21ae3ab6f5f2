/** Our words for what a page may be described as, and for what it adds to a result. */

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
