/** A page's address as the desk types it: segment by segment. */
import type { Decisions } from '../../../core/work/decisions.ts'
import { slugPath } from '../../../core/work/setting.ts'
import { pathParts, type PathParts } from '../../../core/site/moves.ts'

/** What is decided for a page's address. */
export interface Slug {
  value: string
  alone?: true
}
export const slugOf = (decisions: Decisions): Slug | undefined => decisions['edit:slug'] as Slug | undefined

/** What the editor typed for the segments, or the segments that the page has. */
export function typedSegments(decided: Slug | undefined, original: string[]): string[] {
  const slug = decided?.value
  if (slug === undefined) return original
  return slug.startsWith('/') ? slug.slice(1).split('/') : [...original.slice(0, -1), slug]
}

/** The decision that segments come to; undefined for those that the page has anyway. */
export function decisionFor(
  segments: string[],
  original: string[],
  alone: true | undefined,
): Slug | undefined {
  if (segments.join('/') === original.join('/')) return undefined
  const above = segments.slice(0, -1).join('/') === original.slice(0, -1).join('/')
  return { value: above ? segments.at(-1)! : `/${segments.join('/')}`, ...(alone ? { alone } : {}) }
}

/** The path that a page was taken in with, as its address has it, in parts; none of an address that has no slug to change. */
export function ownParts(
  { file, path, url }: { file: string | null; path: string; url: string },
  site: { root: string; base: string },
): PathParts {
  const slugged = slugPath({ file, url: file === null ? path : url }, site)
  return slugged === null ? { segments: [], extension: '', folder: false } : pathParts(slugged)
}
