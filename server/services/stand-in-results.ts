/** The stand-in for the results service: ten results of invented competitors, the demo's own pages among some of them. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { keywordsOfDemo } from './demo-keywords.ts'
import type { Result, ResultsAnswer } from '../../core/results/line-up.ts'
import { compileKeyword } from '../../core/words/match.ts'
import { chanceOf, competitorHosts, competitorResult } from './competitors.ts'
import { standInDemand } from './stand-in-demand.ts'
import { resultsQuestionSchema } from '../../core/keywords/results-question.ts'
import type { DemandAnswer } from '../../core/keywords/demand.ts'

const AS_OF = '2026-11-20'

export function standInResults(parameters: URLSearchParams): { status: number; body: object } {
  const { value, error } = resultsQuestionSchema.validate({
    phrase: parameters.get('phrase') ?? '',
    market: parameters.get('market') ?? 'national',
    place: parameters.get('place') ?? '',
    screen: parameters.get('screen') ?? 'wide',
    language: parameters.get('language') ?? 'en',
  })
  if (error) return { status: 400, body: { why: error.message } }
  const { phrase, market, place, language } = value
  // The same phrase has other results in another market.
  const where = `${phrase.toLowerCase()} ${market} ${place.toLowerCase()}`
  const hosts = competitorHosts().sort((a, b) => chanceOf(`${a} ${where}`) - chanceOf(`${b} ${where}`))
  const others = hosts.slice(0, 10).map((host) => competitorResult(host, phrase.toLowerCase()))
  const ours = ourResult(phrase, language)
  const ourPlace = 1 + Math.floor(chanceOf(`${where} ours`) * 14)
  if (ours && ourPlace <= 10) others.splice(ourPlace - 1, 0, ours)
  const results: Result[] = others.slice(0, 10).map((result, i) => ({ position: i + 1, ...result }))
  const answer: ResultsAnswer = {
    phrase,
    market,
    asOf: AS_OF,
    results,
    questions: questionsAbout(phrase, language),
  }
  return { status: 200, body: answer }
}

/** The demo's page for a phrase, now and then with a description that the engine wrote itself. */
function ourResult(phrase: string, language: string): Omit<Result, 'position'> | null {
  const stems = [...compileKeyword(phrase, language).stems].sort().join(' ')
  const demoPage = keywordsOfDemo().find(({ phrases }) =>
    phrases.some((p) => [...compileKeyword(p, language).stems].sort().join(' ') === stems),
  )
  if (!demoPage) return null
  const html = readFileSync(join(process.cwd(), 'stand-ins/site', demoPage.path), 'utf8')
  const title = /<title>([^<]*)<\/title>/i.exec(html)?.[1] ?? demoPage.path
  const written = /<meta name="?description"? content="([^"]*)"/i.exec(html)?.[1] ?? ''
  const passage = (/<p>([^<]{60,})/.exec(html)?.[1] ?? written).replace(/\s+/g, ' ')
  const path = demoPage.path.replace(/index\.html$/, '')
  return {
    url: `https://farrowskerry.example/${path}`,
    trail: ['farrowskerry.example', ...path.split('/').filter(Boolean)],
    title: decoded(title),
    description: decoded(chanceOf(`${phrase} own`) > 0.6 ? passage : written),
    date: null,
    rating: null,
    price: null,
  }
}
const decoded = (text: string) =>
  text
    .replace(/&amp;/g, '&')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, '’')
    .trim()

/** What people ask around a phrase: the questions of its topic. */
function questionsAbout(phrase: string, language: string): string[] {
  const { body } = standInDemand(
    new URLSearchParams({ topic: phrase, market: 'national', language, limit: '500' }),
  )
  return ((body as DemandAnswer).phrases ?? [])
    .filter((p) => p.question)
    .slice(0, 6)
    .map((p) => `${p.phrase.slice(0, 1).toUpperCase()}${p.phrase.slice(1)}?`)
}
