/**
 * First versions of a page's data, filled from the page itself: each value with the place where it was found. What was
 * not found is left open, never invented.
 */
import { titleOf, type PageFacts } from '../page/read/facts.ts'
import { pricesIn, dateIn } from './figures-in-text.ts'
import { article, breadcrumbList, course, faqPage, videoObject, webPage } from './building/pages.ts'
import { event, product, recipe } from './building/goods.ts'
import { jobPosting, localBusiness, organization, webSite } from './building/people.ts'
import {
  date,
  materialOf,
  ingredients,
  label,
  named,
  questionsOf,
  under,
  type Builder,
  type BuildKind,
  type Built,
  type Material,
  type SiteSide,
} from './building/material.ts'

export type { BuildKind, Built, Found, SiteSide } from './building/material.ts'

/** What a page's data may be built as, and why it is offered. */
export interface Offer {
  kind: BuildKind
  because: string
  /** Whether the page holds all that the feature needs. */
  likely: boolean
}

const makers: Record<BuildKind, (material: Material) => Builder> = {
  FAQPage: faqPage,
  BreadcrumbList: breadcrumbList,
  Article: article,
  Product: product,
  Event: event,
  Recipe: recipe,
  LocalBusiness: localBusiness,
  JobPosting: jobPosting,
  Course: course,
  VideoObject: videoObject,
  Organization: organization,
  WebSite: webSite,
  WebPage: webPage,
}

const needed: Partial<Record<BuildKind, string[]>> = {
  FAQPage: ['mainEntity'],
  BreadcrumbList: ['itemListElement'],
  Article: ['headline', 'datePublished'],
  Product: ['name', 'offers'],
  Event: ['name', 'startDate', 'location'],
  Recipe: ['name', 'recipeIngredient'],
  LocalBusiness: ['name', 'address'],
  JobPosting: ['title', 'datePosted', 'jobLocation'],
  Course: ['name', 'description', 'provider'],
  VideoObject: ['name', 'thumbnailUrl', 'uploadDate'],
  Organization: ['name'],
  WebSite: ['name'],
}

/** One kind of data built from a page. `text` is the page's own text, which `page` was read from. */
export function build(
  kind: BuildKind,
  page: PageFacts,
  text: string,
  site: SiteSide,
  language: string,
): Built {
  return makers[kind](materialOf(page, text, site, language)).built()
}

/** What the page may be described as, by what it holds; what it holds all of first. */
export function offersOf(page: PageFacts, text: string, site: SiteSide, language: string): Offer[] {
  const material = materialOf(page, text, site, language)
  const { content } = material
  const home = page.url === site.base
  const questions = questionsOf(content).length
  const words = `${page.path} ${titleOf(page)?.text ?? ''}`
  const evidence: [BuildKind, string | null][] = [
    [
      'FAQPage',
      questions > 0
        ? `${questions} ${questions === 1 ? 'question with its answer' : 'questions with their answers'}`
        : null,
    ],
    [
      'Recipe',
      under(content, ingredients).some((p) => p.kind === 'item') ? 'a list of what is needed' : null,
    ],
    [
      'JobPosting',
      label(material, named.closing) ||
      label(material, named.pay) ||
      /\bjobs?\b|\bvacanc|\bstilling|\bstellen/i.test(words)
        ? 'a job with its terms'
        : null,
    ],
    [
      'Event',
      label(material, named.when) && dateIn(label(material, named.when)!.value, material.lang)
        ? 'a date and a place'
        : null,
    ],
    ['Course', /\bcourses?\b|\bkursus|\bkurs\b/i.test(words) ? 'a course' : null],
    ['VideoObject', content.videos.length > 0 ? 'a film' : null],
    ['Product', content.pieces.some((p) => pricesIn(p.text, material.lang).length > 0) ? 'a price' : null],
    ['LocalBusiness', content.pieces.some((p) => p.kind === 'address') ? 'an address' : null],
    [
      'Article',
      date(material, named.published, 'published')
        ? 'a date of publication'
        : page.main.words > 150 && !home
          ? 'running text'
          : null,
    ],
    ['Organization', home ? 'it is the home page' : null],
    ['WebSite', home ? 'it is the home page' : null],
    ['BreadcrumbList', site.trail.length > 1 ? 'pages above it in the site' : null],
  ]
  return evidence
    .flatMap(([kind, because]): Offer[] => {
      if (because === null) return []
      const { data } = build(kind, page, text, site, language)
      return [{ kind, because, likely: (needed[kind] ?? []).every((p) => data[p] !== undefined) }]
    })
    .sort((a, b) => Number(b.likely) - Number(a.likely))
}
