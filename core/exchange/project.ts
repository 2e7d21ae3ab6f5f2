/**
 * The project file: a site with all its work in one open ZIP. `project.json` holds the site, the decisions and the
 * command log; `source/…` every file as it was taken in, `fetched/…` every page that is no file.
 */
import Joi from 'joi'
import { addressOf, isPagePath } from '../addresses/addresses.ts'
import { filePage, identitySchema, pathOf, type PageId, type PageIdentity } from '../site/page-identity.ts'
import { decisionsSchema, logSchema, type Decisions, type LogEntry } from '../work/decisions.ts'
import { openZip, safePath, writeZip } from './zip.ts'

export interface Project {
  site: { name: string; base: string; whole: boolean; root: string; takenIn: string }
  pages: PageIdentity[]
  /** What its sitemap lists, and addresses that are of the site and no pages; null for a site of files. */
  addresses: { sitemap: string[] | null; files: string[] } | null
  /** Decisions by page; "" is the site as a whole. */
  work: Map<PageId, Decisions>
  log: LogEntry[]
  /** Every file as it was taken in, pages and others, by path. */
  files: Map<string, Uint8Array>
  /** Pages without a file, as they were served. */
  fetched: Map<PageId, Uint8Array>
}

const FORMAT = 'keen-quill-project'
const VERSION = 2

/** A folder within the archive, such as `site/`, or "" for its top. */
const root = Joi.string()
  .allow('')
  .max(500)
  .custom((value: string, helpers) => {
    if (value === '' || (safePath(value) === value.replace(/\/$/, '') && value.endsWith('/'))) return value
    return helpers.message({ custom: `“${value}” is not a folder of the archive` })
  })
const siteSchema = Joi.object({
  name: Joi.string().max(200).required(),
  base: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .required(),
  whole: Joi.boolean().required(),
  root: root.required(),
  takenIn: Joi.string().max(40).required(),
})
const work = Joi.object().pattern(Joi.string().allow(''), decisionsSchema)
const schema = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.valid(VERSION).required(),
  site: siteSchema.required(),
  pages: Joi.array().items(identitySchema).max(100_000).unique('id').required(),
  addresses: Joi.object({
    sitemap: Joi.array().items(Joi.string().max(10_000)).max(100_000).allow(null).required(),
    files: Joi.array().items(Joi.string().max(10_000)).max(100_000).required(),
  })
    .allow(null)
    .default(null),
  work: work.required(),
  log: logSchema.required(),
})
/** Files of the first version keep decisions and log by the page's path, and list no pages. */
const firstVersion = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.valid(1).required(),
  site: siteSchema.required(),
  work: work.required(),
  log: Joi.array().required(),
})

/** Ids of fetched pages name a file of the archive. */
const FETCHED_ID = /^[\w-]{1,80}$/

interface Written {
  version: number
  site: Project['site']
  pages: PageIdentity[]
  addresses: Project['addresses']
  work: Record<PageId, Decisions>
  log: LogEntry[]
}

export function writeProject({
  site,
  pages,
  addresses,
  work: decisions,
  log,
  files,
  fetched,
}: Project): Uint8Array {
  const json = JSON.stringify(
    { format: FORMAT, version: VERSION, site, pages, addresses, work: Object.fromEntries(decisions), log },
    null,
    1,
  )
  return writeZip([
    ['project.json', new TextEncoder().encode(json)],
    ...[...files].map(([path, bytes]): [string, Uint8Array] => [`source/${path}`, bytes]),
    ...[...fetched].map(([id, bytes]): [string, Uint8Array] => [`fetched/${id}.html`, bytes]),
  ])
}

/** Whether an archive is a project file rather than a site. */
export const isProject = (paths: string[]): boolean =>
  paths.includes('project.json') && paths.some((p) => /^(?:source|fetched)\//.test(p))

export function readProject(bytes: Uint8Array): { ok: true; project: Project } | { ok: false; why: string } {
  const opened = openZip(bytes)
  if (!opened.ok) return opened
  const { paths, read } = opened.zip
  if (!paths.includes('project.json'))
    return {
      ok: false,
      why: 'This archive has no project.json, so it is not a project file. Take it in as a site instead.',
    }
  const { files, failed } = read(paths)
  const projectJson = files.get('project.json')
  if (!projectJson || failed.length > 0)
    return {
      ok: false,
      why: `The project file is damaged: ${failed.map((f) => f.path).join(', ')} cannot be unpacked.`,
    }
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder().decode(projectJson))
  } catch {
    return { ok: false, why: 'The project file is damaged: its project.json is not valid JSON.' }
  }
  const old = (json as { version?: unknown } | null)?.version === 1
  const first = old ? firstVersion.validate(json) : null
  const { value, error } = first
    ? first.error
      ? first
      : schema.validate(fromFirstVersion(first.value as Written, [...files.keys()]))
    : schema.validate(json)
  if (error) return { ok: false, why: `The project file cannot be read: ${error.message}.` }
  const { site, pages, addresses, work: decisions, log } = value as Written
  const under = (folder: string) =>
    new Map(
      [...files].flatMap(([path, content]) =>
        path.startsWith(folder) ? [[path.slice(folder.length), content] as const] : [],
      ),
    )
  const sources = under('source/')
  const served = under('fetched/')
  const lost = pages.find(({ id, file }) =>
    file === null ? !FETCHED_ID.test(id) || !served.has(`${id}.html`) : !sources.has(file),
  )
  if (lost) return { ok: false, why: `The project file is damaged: the page ${pathOf(lost)} is not in it.` }
  const fetched = new Map(
    pages.flatMap(({ id, file }) => (file === null ? [[id, served.get(`${id}.html`)!] as const] : [])),
  )
  const project = {
    site,
    pages,
    addresses,
    work: new Map(Object.entries(decisions)),
    log,
    files: sources,
    fetched,
  }
  return { ok: true, project }
}

/** A project of the first version as it would be written today: pages keep their path as their id. */
function fromFirstVersion({ site, work: decisions, log }: Written, paths: string[]): unknown {
  const sources = paths.flatMap((path) => (path.startsWith('source/') ? [path.slice('source/'.length)] : []))
  const pages = (site.whole ? sources.filter(isPagePath) : sources).map((path) =>
    filePage(
      path,
      path,
      addressOf(path.startsWith(site.root) ? path.slice(site.root.length) : path, site.base),
    ),
  )
  const withPage = (change: unknown) => {
    const { path, ...rest } = Object(change) as { path?: unknown }
    return { page: path, ...rest }
  }
  const entries = (log as unknown[]).map((entry) => {
    const { changes } = Object(entry) as { changes?: unknown }
    return { ...Object(entry), changes: Array.isArray(changes) ? changes.map(withPage) : changes }
  })
  return { format: FORMAT, version: VERSION, site, pages, work: decisions, log: entries }
}
