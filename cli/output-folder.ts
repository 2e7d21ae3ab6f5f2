/**
 * A folder that a command writes: checked before its first byte, written beside its place and renamed at the end, so that
 * it is whole or not there, whenever the command is ended.
 */
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { basename, dirname, join, resolve, sep } from 'node:path'
import { Problem } from './problem.ts'

const reason = (error: unknown): string => (error as Error).message.split(',')[0]!.replace(/^[A-Z]+: /, '')

/** The nearest folder above that is there, links followed, and what of the path is not there yet. */
function realPath(path: string): string {
  const full = resolve(path)
  return existsSync(full) ? realpathSync(full) : join(realPath(dirname(full)), basename(full))
}

/** Refuses a place that cannot take the output: a file, a folder with something in it, one within what is read. */
export function checkOut(out: string, inputs: readonly string[]): void {
  if (existsSync(out)) {
    if (!statSync(out).isDirectory()) throw new Problem(`${out} is a file. Name an empty or new folder.`)
    if (readdirSync(out).length > 0) throw new Problem(`${out} is not empty. Name an empty or new folder.`)
  }
  const place = realPath(out)
  for (const input of inputs) {
    if (!existsSync(input) || !statSync(input).isDirectory()) continue
    const root = realpathSync(input)
    if (place === root || place.startsWith(root + sep))
      throw new Problem(
        `${out} is inside ${input} and would become part of the site. Name a folder outside it.`,
      )
  }
}

/** Names that a file system takes: by its longest name and path in bytes. Source: Linux, NAME_MAX and PATH_MAX. */
const LONGEST_NAME = 255
const LONGEST_PATH = 4095

/** What is wrong with the names of the files that are to be written; nothing where all can stand beside each other. */
export function namesThatClash(paths: readonly string[], out: string): string[] {
  const problems: string[] = []
  const files = new Set(paths)
  const bytes = (text: string) => Buffer.byteLength(text)
  const seen = new Set<string>()
  for (const path of paths) {
    if (seen.has(path)) problems.push(`${path} would be written twice`)
    seen.add(path)
    const parts = path.split('/')
    const long = parts.find((p) => bytes(p) > LONGEST_NAME)
    if (long !== undefined)
      problems.push(
        `${path}: the name “${long.slice(0, 40)}…” has ${bytes(long)} bytes; at most ${LONGEST_NAME} can be written`,
      )
    else if (bytes(resolve(out, path)) > LONGEST_PATH)
      problems.push(`${path}: its path is longer than ${LONGEST_PATH} bytes`)
    for (let i = 1; i < parts.length; i++) {
      const folder = parts.slice(0, i).join('/')
      if (files.has(folder))
        problems.push(`${folder} would be a file, and ${path} needs a folder of that name`)
    }
  }
  return [...new Set(problems)]
}

const partName = (out: string) => `.${basename(resolve(out))}.part-`

/** What commands that were ended left beside the place. */
function sweep(out: string): void {
  const parent = dirname(resolve(out))
  if (!existsSync(parent)) return
  for (const name of readdirSync(parent)) {
    if (!name.startsWith(partName(out))) continue
    const pid = Number(/-(\d+)-/.exec(name.slice(partName(out).length - 1))?.[1])
    try {
      if (Number.isInteger(pid)) process.kill(pid, 0)
    } catch {
      rmSync(join(parent, name), { recursive: true, force: true })
    }
  }
}

/** Writes the files; at the end all of them are in `out`, or none is and a Problem says why. */
export function writeFolder(out: string, files: Iterable<readonly [string, Uint8Array | string]>): void {
  const place = resolve(out)
  let part: string | null = null
  const clean = () => {
    if (part !== null) rmSync(part, { recursive: true, force: true })
  }
  const ended = (signal: NodeJS.Signals) => {
    clean()
    process.kill(process.pid, signal)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.once(signal, ended)
  try {
    mkdirSync(dirname(place), { recursive: true })
    sweep(out)
    part = mkdtempSync(join(dirname(place), `${partName(out)}${process.pid}-`))
    const folders = new Set<string>()
    for (const [path, bytes] of files) {
      const target = join(part, path)
      const folder = dirname(target)
      if (!folders.has(folder)) mkdirSync(folder, { recursive: true })
      folders.add(folder)
      writeFileSync(target, bytes)
    }
    renameSync(part, place)
  } catch (error) {
    clean()
    if (error instanceof Problem) throw error
    throw new Problem(`${out} could not be written (${reason(error)}); nothing was kept.`)
  } finally {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.removeListener(signal, ended)
  }
}
