/** Whole-page HTML conformance, in a worker of its own: it takes seconds, and no keystroke's question waits behind it. */
import * as Comlink from 'comlink'
import { conformanceOf, type Finding } from '../../core/conformance/conformance.ts'

/** A finding with its place in the text that was looked through. */
export interface PlacedFinding extends Finding {
  start: number
}

const api = {
  /** Answers as soon as there is time: a sign of life. */
  ping: async (): Promise<true> => true,
  async findings(text: string): Promise<PlacedFinding[]> {
    const lineStarts = [0]
    for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lineStarts.push(at + 1)
    return (await conformanceOf(text)).map((f) => ({
      ...f,
      start: Math.min(text.length, (lineStarts[f.line - 1] ?? 0) + f.column - 1),
    }))
  },
}
export type ConformanceApi = typeof api

Comlink.expose(api)
