import type { Values } from './rule.ts'

/** What a stet remembers of a mark: when these values change, the mark is back. */
export const fingerprint = (values: Values): string =>
  JSON.stringify(Object.entries(values).sort(([a], [b]) => (a < b ? -1 : 1)))
