/** The invented competitors: for each a result and a small page about any topic, the same each time. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { escapeMarkup } from '../../core/strings.ts'

interface Competitors {
  competitors: { host: string; name: string; titles: string[]; section: string }[]
  descriptions: string[]
  headings: string[]
  paragraphs: string[]
}
let read: Competitors | null = null
const data = (): Competitors =>
  (read ??= JSON.parse(
    readFileSync(join(process.cwd(), 'stand-ins/competitors.json'), 'utf8'),
  ) as Competitors)

/** From 0 up to 1, the same for the same text (FNV-1a, its bits mixed once more). */
export function chanceOf(text: string): number {
  let hash = 0x811c9dc5
  for (const c of text) hash = Math.imul(hash ^ c.codePointAt(0)!, 0x01000193)
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d)
  return ((hash ^ (hash >>> 13)) >>> 0) / 0x100000000
}
const oneOf = <T>(all: readonly T[], of: string): T => all[Math.floor(chanceOf(of) * all.length)]!

const YEAR = '2026'
function filled(pattern: string, topic: string, of: string): string {
  const title = topic.replace(/(?<=^|\s)\p{Ll}/gu, (c) => c.toUpperCase())
  return pattern
    .replaceAll('{T}', title)
    .replaceAll('{t}', topic)
    .replaceAll('{year}', YEAR)
    .replaceAll('{n}', String(3 + Math.floor(chanceOf(`${of} n`) * 14)))
    .replaceAll('{p}', String(4 + Math.floor(chanceOf(`${of} p`) * 46)))
}

export const competitorHosts = (): string[] => data().competitors.map(({ host }) => host)

export interface CompetitorText {
  url: string
  trail: string[]
  title: string
  description: string
  rating: { value: number; count: number } | null
  price: string | null
  date: string | null
}

/** What a competitor's page about a topic is in results. */
export function competitorResult(host: string, topic: string): CompetitorText {
  const { competitors, descriptions } = data()
  const competitor = competitors.find((c) => c.host === host)!
  const of = `${host} ${topic}`
  const slug = topic.replace(/[^\p{L}\p{N}]+/gu, '-')
  return {
    url: `https://${host}/${encodeURIComponent(slug)}/`,
    trail: [host, slug],
    title: filled(oneOf(competitor.titles, of), topic, of),
    description: filled(oneOf(descriptions, `${of} d`), topic, of),
    rating:
      chanceOf(`${of} r`) > 0.6
        ? {
            value: Math.round(38 + chanceOf(`${of} v`) * 12) / 10,
            count: Math.ceil(chanceOf(`${of} c`) * 400),
          }
        : null,
    price: chanceOf(`${of} price`) > 0.7 ? filled('£{p}', topic, of) : null,
    date: chanceOf(`${of} date`) > 0.7 ? `2026-0${1 + Math.floor(chanceOf(`${of} m`) * 9)}-14` : null,
  }
}

/** A competitor's page at a path, as HTML; null where it has none. */
export function competitorPage(host: string, path: string): string | null {
  const { competitors, headings, paragraphs } = data()
  const competitor = competitors.find((c) => c.host === host)
  if (!competitor) return null
  const topic =
    path === '/' ? competitor.section.toLowerCase() : /^\/([^/]+)\/$/.exec(path)?.[1]?.replace(/-/g, ' ')
  if (topic === undefined) return null
  const { title, description } = competitorResult(host, topic)
  const of = `${host} ${topic}`
  const parts = headings
    .filter((h) => chanceOf(`${of} ${h}`) > 0.45)
    .map((h) => {
      const paired = [oneOf(paragraphs, `${of} ${h} 1`), oneOf(paragraphs, `${of} ${h} 2`)]
      return `<h2>${escapeMarkup(h)}</h2>\n${paired.map((p) => `<p>${escapeMarkup(filled(p, topic, of))}</p>`).join('\n')}`
    })
  const heading = escapeMarkup(filled('{T}', topic, of))
  const described = JSON.stringify({
    '@context': 'https://schema.org',
    '@graph': [
      { '@type': 'Organization', name: competitor.name, url: `https://${host}/` },
      ...(chanceOf(`${of} event`) > 0.5
        ? [{ '@type': 'Event', name: filled('{T}', topic, of), startDate: '2027-05-01' }]
        : []),
    ],
  }).replaceAll('<', '\\u003c')
  const pictures = Array.from(
    { length: 1 + Math.floor(chanceOf(`${of} pictures`) * 4) },
    (_, i) =>
      `<img src="/${i + 1}.jpg" width="600" height="400" alt="${escapeMarkup(`${topic}, ${i + 1}`)}">`,
  )
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>${escapeMarkup(title)}</title>
<meta name="description" content="${escapeMarkup(description)}">
<link rel="canonical" href="https://${host}${path}">
<script type="application/ld+json">${described}</script>
</head>
<body>
<header><a href="/">${escapeMarkup(competitor.name)}</a></header>
<main>
<h1>${heading}</h1>
<p>${escapeMarkup(filled(oneOf(paragraphs, of), topic, of))}</p>
${pictures.join('\n')}
${parts.join('\n')}
<p><a href="/">More from ${escapeMarkup(competitor.name)}</a></p>
</main>
<footer>${escapeMarkup(competitor.name)}: invented for the demo of Keen Quill.</footer>
</body>
</html>
`
}
