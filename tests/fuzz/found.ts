import type { Kind } from './fuzz.ts'

/** Inputs that the long fuzz run found something wrong with, by kind and seed; mended, and tried again in verify. */
export const found: [Kind, number][] = [
  // A title shortened brought a stray NUL into the bytes that were taken for binary.
  ['pages', 27309035],
  // A doctype that ends with the file.
  ['pages', 55587784],
  // A misnested font element, cloned in the tree, whose address was written twice.
  ['pages', 59095901],
  ['pages', 66603113],
]
