/** What a page is known by: to the work on it, to the world, and to the folder that it came from. */
import Joi from 'joi'
import { servedSchema, type Served } from '../page/source/served.ts'

/** Given at intake and kept for good: through changed slugs, and when the page is taken in again. */
export type PageId = string

export interface PageIdentity {
  id: PageId
  /** Its address as it was taken in. */
  url: string
  /** Its path in the folder or ZIP; null for a page fetched by its address or known from a sheet. */
  file: string | null
  /** null for files. */
  served: Served | null
  /** What little is known of it: its head, or a row of a sheet; null where all of it is. */
  partial: 'head' | 'row' | null
  /** How many words a sheet says that it has; left out where none does. */
  words?: number
}

export const identitySchema = Joi.object<PageIdentity>({
  id: Joi.string().max(2000).required(),
  url: Joi.string().max(10_000).required(),
  file: Joi.string().max(2000).allow(null).required(),
  served: servedSchema.allow(null).required(),
  partial: Joi.valid('head', 'row', null).required(),
  words: Joi.number().integer().min(0).max(1e9),
})

/** What a page is called in lists and reports: its file, or its address where it has none. */
export const pathOf = ({ file, url }: Pick<PageIdentity, 'file' | 'url'>): string => file ?? url

/** A page that is a file of a folder or ZIP and that nothing else is known of. */
export const filePage = (id: PageId, file: string, url: string): PageIdentity => ({
  id,
  url,
  file,
  served: null,
  partial: null,
})
