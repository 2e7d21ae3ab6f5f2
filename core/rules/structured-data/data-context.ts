import { isSchemaContext } from '../../structured-data/context.ts'
import { member, type JsonValue } from '../../json/json.ts'
import { dataOf, isMeantForSchema } from '../../structured-data/read.ts'
import { rule } from '../rule.ts'

type Verdict =
  { kind: 'right' | 'other' | 'missing' } | { kind: 'misspelt'; value: JsonValue & { kind: 'string' } }

function verdict(object: JsonValue): Verdict {
  const context = member(object, '@context')
  if (!context) return { kind: 'missing' }
  if (context.kind !== 'string') return { kind: 'other' }
  if (isSchemaContext(context.value)) return { kind: 'right' }
  return isMeantForSchema(context.value) ? { kind: 'misspelt', value: context } : { kind: 'other' }
}

/** A block that does not say its words are schema.org's. */
export const dataContext = rule({
  id: 'data-context',
  family: 'data',
  severity: 'blocker',
  sign: 'missing',
  name: 'Structured data without a context',
  basis: 'JSON-LD 1.1, 3.1 (the context); schema.org, "https://schema.org"',
  why: 'Without "@context" the words in the block mean nothing to a machine.',
  mend: 'Write "@context": "https://schema.org".',
  needs: ['data'],
  message: ({ found }) =>
    found === null
      ? '"@context" is missing; "https://schema.org" is expected.'
      : `"@context" is “${found}”; "https://schema.org" is expected.`,
  check({ page }, mark) {
    const { blocks } = dataOf(page)
    for (const [i, block] of page.data.entries()) {
      const json = blocks[i]!.json
      if (!json) continue
      const objects = json.kind === 'array' ? json.items : [json]
      for (const object of objects) {
        if (object.kind !== 'object') continue
        const verdictOnIt = verdict(object)
        if (verdictOnIt.kind === 'right' || verdictOnIt.kind === 'other') continue
        const [from, to, text] =
          verdictOnIt.kind === 'misspelt'
            ? [verdictOnIt.value.start, verdictOnIt.value.end, '"https://schema.org"']
            : [
                object.start + 1,
                object.start + 1,
                `"@context": "https://schema.org"${object.members.length > 0 ? ', ' : ''}`,
              ]
        mark(
          { start: block.jsonStart + from, end: block.jsonStart + to },
          { found: verdictOnIt.kind === 'misspelt' ? verdictOnIt.value.value : null },
          {
            label: 'Add the context',
            edits: [
              {
                target: 'jsonld',
                at: block.start,
                edit: { value: block.json.slice(0, from) + text + block.json.slice(to) },
              },
            ],
          },
        )
      }
    }
  },
  examples: {
    clean: [
      '<script type="application/ld+json">{"@context":"https://schema.org","@type":"Event"}</script>',
      '<script type="application/ld+json">{"@context":"http://schema.org/","@type":"Event"}</script>',
      '<script type="application/ld+json">{"@context":"https://vocabulary.example/","a":1}</script>',
      '<script type="application/ld+json">{"@context":["https://schema.org",{"x":"y"}]}</script>',
    ],
    marked: [
      {
        html: '<script type="application/ld+json">{"@type":"Event","name":"Lighting"}</script>',
        at: '"@type"',
        says: /"@context" is missing/,
      },
      {
        html: '<script type="application/ld+json">{"@context":"https://schema.orgs","@type":"Event"}</script>',
        at: '"https://schema.orgs"',
        says: /“https:\/\/schema\.orgs”/,
      },
      {
        html: '<script type="application/ld+json">{"@context":"schema.org"}</script>',
        says: /is “schema\.org”/,
      },
      { html: '<script type="application/ld+json">[{"@type":"Event"}]</script>', says: /missing/ },
    ],
  },
})
