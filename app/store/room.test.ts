import { expect, it } from 'vitest'
import { inMegabytes } from './room.ts'

it.each([
  [0, '0.0 MB'],
  [400_000, '0.4 MB'],
  [12 * 1024 * 1024, '12 MB'],
  [1023 * 1024 * 1024, '1,023 MB'],
  [1.25 * 1024 ** 3, '1.3 GB'],
])('%s bytes are %s', (bytes, words) => expect(inMegabytes(bytes)).toBe(words))
