/** JSON-LD blocks. */
import { attribute, type Element } from '../parse.ts'
import { placeOf, type Reading } from '../reading.ts'

export function collectData({ page, source }: Reading, node: Element): void {
  const type = (attribute(node, 'type') ?? '').trim()
  if (!/^application\/ld\+json\s*(;|$)/i.test(type) || !node.place) return
  const jsonStart = node.place.startEnd
  const json = source.text.slice(jsonStart, node.place.endStart ?? source.text.length)
  page.data.push({ json, jsonStart, ...placeOf(node) })
}
