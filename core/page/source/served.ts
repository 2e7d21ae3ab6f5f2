/** What a server said with a page that was fetched. */
import Joi from 'joi'

export interface Served {
  status: number
  /** The address that answered, after every redirect. */
  address: string
  /** Addresses that were asked for and answered with a redirect to this page, each with its status. */
  redirects: { url: string; status: number }[]
  /** The media type in lower case, without parameters; null where none was said. */
  contentType: string | null
  /** The charset of the content type, which goes before the page's own. */
  charset: string | null
  /** Each X-Robots-Tag header, as it is written. */
  robots: string[]
  /** The address that a Link header names as canonical, as it is written. */
  canonical: string | null
  /** YYYY-MM-DD */
  date: string
}

const address = Joi.string().max(10_000)
export const servedSchema = Joi.object<Served>({
  status: Joi.number().integer().required(),
  address: address.required(),
  redirects: Joi.array()
    .items(Joi.object({ url: address.required(), status: Joi.number().integer().required() }))
    .max(1000)
    .required(),
  contentType: Joi.string().max(1000).allow(null).required(),
  charset: Joi.string().max(100).allow(null).required(),
  robots: Joi.array().items(Joi.string().max(10_000).allow('')).max(100).required(),
  canonical: address.allow(null).required(),
  date: Joi.string().max(40).required(),
})

/** Directives that have a value behind a colon; any other name before one is a crawler's. From memory. */
const withValue = new Set(['max-snippet', 'max-image-preview', 'max-video-preview', 'unavailable_after'])

/** Robots directives for every crawler that the headers hold, in lower case, in order; those for one crawler by its name are left out. */
export function headerRobots(served: Served | null): string[] {
  const directives: string[] = []
  for (const header of served?.robots ?? []) {
    const named = /^\s*([a-z][\w-]*)\s*:/i.exec(header)?.[1]?.toLowerCase()
    if (named !== undefined && !withValue.has(named)) continue
    for (const directive of header.toLowerCase().split(','))
      if (directive.trim()) directives.push(directive.trim())
  }
  return directives
}
