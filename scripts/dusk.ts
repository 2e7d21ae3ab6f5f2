/** The demo's one photograph, which is none: dusk over the landing, drawn a pixel at a time and saved without compression. */
import { crc32 } from 'node:zlib'

export const WIDTH = 960
export const HEIGHT = 600

/** From the sea, through the evening, to the night; then the tower and its lamp. */
const palette = [
  ...[0x22303d, 0x2a3a49, 0x344757, 0x3f5465, 0x4b6172, 0x5a6f7d, 0x6d7d86, 0x83898b],
  ...[0x9c938c, 0xb59c8a, 0xcba487, 0xdcae87, 0xe8bb8d, 0xf0cb9b, 0x1b2733, 0xfbf8f1],
]
const TOWER = 14
const LAMP = 15

function colourAt(x: number, y: number): number {
  const horizon = 0.62 * HEIGHT
  const fromTower = Math.abs(x - 0.72 * WIDTH)
  const top = 0.24 * HEIGHT
  if (Math.hypot(x - 0.72 * WIDTH, y - top) < 7) return LAMP
  if (y > top && y < 0.78 * HEIGHT && fromTower < 12 + ((y - top) / HEIGHT) * 34) return TOWER
  if (y > 0.74 * HEIGHT && fromTower < 150 - Math.abs(y - 0.8 * HEIGHT) * 1.2) return TOWER
  const light = y < horizon ? y / horizon : 1 - (y - horizon) / (HEIGHT - horizon)
  // A dither that repeats every eight pixels, so that steps are not seen.
  const dither = (((x * 5) ^ (y * 3)) % 8) / 8
  const wave = y < horizon ? 0 : Math.sin(x / 23 + (y * y) / 900) * 1.4
  return Math.max(0, Math.min(13, Math.floor(light * 12 + wave + dither)))
}

const chunk = (type: string, data: Buffer): Buffer => {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data])
  const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)]
  length.writeUInt32BE(data.length)
  check.writeUInt32BE(crc32(body) >>> 0)
  return Buffer.concat([length, body, check])
}

/** Source: RFC 1950; RFC 1951, 3.2.4. Nothing is compressed, so that every version of zlib gives the same file. */
function stored(data: Buffer): Buffer {
  const parts: Uint8Array[] = [Buffer.from([0x78, 0x01])]
  for (let at = 0; at < data.length; at += 65_535) {
    const block = data.subarray(at, at + 65_535)
    const head = Buffer.alloc(5)
    head[0] = at + block.length >= data.length ? 1 : 0
    head.writeUInt16LE(block.length, 1)
    head.writeUInt16LE(~block.length & 0xffff, 3)
    parts.push(head, block)
  }
  let [a, b] = [1, 0]
  for (const byte of data) {
    a = (a + byte) % 65_521
    b = (b + a) % 65_521
  }
  const sum = Buffer.alloc(4)
  sum.writeUInt32BE(((b << 16) | a) >>> 0)
  return Buffer.concat([...parts, sum])
}

/** A PNG (ISO/IEC 15948) with a palette. */
export function dusk(): Uint8Array {
  const head = Buffer.alloc(13)
  head.writeUInt32BE(WIDTH, 0)
  head.writeUInt32BE(HEIGHT, 4)
  // Eight bits a pixel, by palette.
  head.set([8, 3, 0, 0, 0], 8)
  const rows = Buffer.alloc((WIDTH + 1) * HEIGHT)
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) rows[y * (WIDTH + 1) + 1 + x] = colourAt(x, y)
  return new Uint8Array(
    Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', head),
      chunk('PLTE', Buffer.from(palette.flatMap((c) => [c >> 16, (c >> 8) & 255, c & 255]))),
      chunk('IDAT', stored(rows)),
      chunk('IEND', Buffer.alloc(0)),
    ]),
  )
}
