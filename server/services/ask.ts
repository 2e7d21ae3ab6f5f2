/**
 * Asks an outside service: one address with its question as a query, answered as JSON. What comes back is not trusted:
 * it is bounded in size and time, follows no redirect, and is checked before anything else sees it.
 */
import type Joi from 'joi'

/** What a service is, for those who read of its failure. */
export interface Service {
  /** In a sentence: "The demand service". */
  name: string
  /** The variable that names its address. */
  variable: string
  /** Where the stand-in answers, below this server's own address. */
  standIn: string
}
/** Who answered, as it is shown beside the figures. */
export const INVENTED = 'invented for the demo'

export type Asked<Answer> =
  { ok: true; answer: Answer; source: string } | { ok: false; off: boolean; why: string }

export interface Limits {
  /** Milliseconds. */
  time: number
  bytes: number
}
const limits: Limits = { time: 15_000, bytes: 8 * 1024 * 1024 }

/** Where a service answers: its own address, the stand-in's, or nowhere. */
export function addressOfService(
  { variable, standIn }: Service,
  environment: Readonly<Record<string, string | undefined>> = process.env,
): { url: string; source: string } | 'off' | { problem: string } {
  const given = environment[variable]?.trim() ?? ''
  if (given === 'off') return 'off'
  if (given === '') return { url: `http://127.0.0.1:${environment.PORT ?? 4460}${standIn}`, source: INVENTED }
  if (!/^https?:\/\//i.test(given) || !URL.canParse(given))
    return { problem: `${variable} must be an http or https address, or “off”. It is “${given}”.` }
  return { url: given, source: new URL(given).host }
}

export async function askService<Answer>(
  service: Service,
  question: Readonly<Record<string, string | number>>,
  schema: Joi.ObjectSchema<Answer>,
  signal?: AbortSignal,
  { time, bytes }: Limits = limits,
): Promise<Asked<Answer>> {
  const failed = (why: string): Asked<Answer> => ({ ok: false, off: false, why: `${service.name} ${why}` })
  const at = addressOfService(service)
  if (at === 'off')
    return {
      ok: false,
      off: true,
      why: `${service.name} is switched off here. Take a sheet in instead, or have ${service.variable} set.`,
    }
  if ('problem' in at) return { ok: false, off: false, why: at.problem }
  const url = new URL(at.url)
  for (const [name, value] of Object.entries(question)) url.searchParams.set(name, String(value))
  const timeout = AbortSignal.timeout(time)
  try {
    const response = await fetch(url, {
      redirect: 'error',
      headers: { accept: 'application/json' },
      signal: signal ? AbortSignal.any([signal, timeout]) : timeout,
    })
    if (!response.ok) {
      await response.body?.cancel()
      return failed(`answered with status ${response.status}. Try again later, or take a sheet in.`)
    }
    const text = await readBounded(response, bytes)
    if (text === null) return failed('sent more than can be used. Ask for less, or tell whoever runs it.')
    let json: unknown
    try {
      json = JSON.parse(text)
    } catch {
      return failed('sent something that is not JSON. Tell whoever runs it, or take a sheet in.')
    }
    const { value, error } = schema.validate(json)
    if (error) return failed(`sent an answer that cannot be used: ${error.message}. Tell whoever runs it.`)
    return { ok: true, answer: value as Answer, source: at.source }
  } catch {
    if (timeout.aborted)
      return failed(
        `has not answered within ${Math.round(time / 1000)} seconds. Try again later, or take a sheet in.`,
      )
    return failed('cannot be reached. Try again later, or take a sheet in.')
  }
}

/** The body as text; null for one that is larger than it may be. */
async function readBounded(response: Response, most: number): Promise<string | null> {
  const pieces: Uint8Array[] = []
  let size = 0
  for await (const piece of response.body ?? []) {
    size += piece.length
    if (size > most) return null
    pieces.push(piece)
  }
  return new TextDecoder().decode(Buffer.concat(pieces))
}
