import type { Kind } from './fuzz.ts'

/** Inputs that the long fuzz run found something wrong with, by kind and seed; mended, and tried again in verify. */
export const found: [Kind, number][] = []
