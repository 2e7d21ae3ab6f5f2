/**
 * How the server hands a fetched page to the browser: four bytes with the length of a JSON text, big-endian, the text
 * itself, and the body as it was served.
 */
import Joi from 'joi'
import type { FetchedMessage } from '../site/fetched.ts'

const address = Joi.string().max(10_000).allow('')
const hops = Joi.array()
  .items(Joi.object({ url: address.required(), status: Joi.number().integer().required() }))
  .max(20)
  .required()
const schema = Joi.alternatives(
  Joi.object({
    ok: Joi.valid(true).required(),
    url: address.required(),
    hops,
    status: Joi.number().integer().required(),
    mediaType: Joi.string().allow('').required(),
    charset: Joi.string().allow(null).required(),
    robots: Joi.array().items(Joi.string().allow('')).required(),
    canonical: address.allow(null).required(),
  }),
  Joi.object({
    ok: Joi.valid(false).required(),
    url: address.required(),
    hops,
    code: Joi.string().required(),
    message: Joi.string().required(),
  }),
)

export function writeFetched(fetched: FetchedMessage): Uint8Array<ArrayBuffer> {
  const { body, ...said } = fetched.ok ? fetched : { ...fetched, body: new Uint8Array() }
  const text = new TextEncoder().encode(JSON.stringify(said))
  const message = new Uint8Array(4 + text.length + body.length)
  new DataView(message.buffer).setUint32(0, text.length)
  message.set(text, 4)
  message.set(body, 4 + text.length)
  return message
}

/** Null for what is no such message. */
export function readFetched(message: Uint8Array): FetchedMessage | null {
  if (message.length < 4) return null
  const length = new DataView(message.buffer, message.byteOffset).getUint32(0)
  if (length > message.length - 4) return null
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder().decode(message.subarray(4, 4 + length)))
  } catch {
    return null
  }
  const { value, error } = schema.validate(json)
  if (error) return null
  return value.ok ? { ...value, body: message.slice(4 + length) } : value
}
