/**
 * The project file: a site with all its work in one open ZIP. `project.json` holds the site, the decisions and the
 * command log; `source/…` every file as it was taken in.
 */
import Joi from 'joi'
import { decisionsSchema, logSchema, type Decisions, type LogEntry } from '../work/decisions.ts'
import { openZip, safePath, writeZip } from './zip.ts'

export interface Project {
  site: { name: string; base: string; whole: boolean; root: string; takenIn: string }
  /** By path; "" is the site as a whole. */
  work: Record<string, Decisions>
  log: LogEntry[]
  files: Map<string, Uint8Array>
}

const FORMAT = 'keen-quill-project'
const VERSION = 1

/** A folder within the archive, such as `site/`, or "" for its top. */
const root = Joi.string()
  .allow('')
  .max(500)
  .custom((value: string, helpers) => {
    if (value === '' || (safePath(value) === value.replace(/\/$/, '') && value.endsWith('/'))) return value
    return helpers.message({ custom: `“${value}” is not a folder of the archive` })
  })
const schema = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.valid(VERSION).required(),
  site: Joi.object({
    name: Joi.string().max(200).required(),
    base: Joi.string()
      .uri({ scheme: ['http', 'https'] })
      .required(),
    whole: Joi.boolean().required(),
    root: root.required(),
    takenIn: Joi.string().max(40).required(),
  }).required(),
  work: Joi.object().pattern(Joi.string().allow(''), decisionsSchema).required(),
  log: logSchema.required(),
})

export function writeProject(project: Project): Uint8Array {
  const { site, work, log, files } = project
  const json = JSON.stringify({ format: FORMAT, version: VERSION, site, work, log }, null, 1)
  return writeZip([
    ['project.json', new TextEncoder().encode(json)],
    ...[...files].map(([path, bytes]): [string, Uint8Array] => [`source/${path}`, bytes]),
  ])
}

/** Whether an archive is a project file rather than a site. */
export const isProject = (paths: string[]): boolean =>
  paths.includes('project.json') && paths.some((p) => p.startsWith('source/'))

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
  const own = files.get('project.json')
  if (!own || failed.length > 0)
    return {
      ok: false,
      why: `The project file is damaged: ${failed.map((f) => f.path).join(', ')} cannot be unpacked.`,
    }
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder().decode(own))
  } catch {
    return { ok: false, why: 'The project file is damaged: its project.json is not valid JSON.' }
  }
  const { value, error } = schema.validate(json)
  if (error) return { ok: false, why: `The project file cannot be read: ${error.message}.` }
  files.delete('project.json')
  const { site, work, log } = value as Omit<Project, 'files'>
  const sources = new Map(
    [...files].flatMap(([path, b]) => (path.startsWith('source/') ? [[path.slice(7), b] as const] : [])),
  )
  return { ok: true, project: { site, work, log, files: sources } }
}
