import fc from 'fast-check'
import { expect, it } from 'vitest'
import { readPage } from '../page/read/read-page.ts'
import { readSource } from '../page/source/source.ts'
import { compileKeyword, hasKeyword } from '../words/match.ts'
import { paragraphsOf, passageFor } from './shown-instead.ts'

function pageOf(blocks: readonly string[]) {
  const html = `<main><h1>The boat</h1>${blocks.map((block) => `<p>${block}</p>`).join('')}</main>`
  const source = readSource(new TextEncoder().encode(html))
  if (!source.ok) throw new Error(source.why)
  return readPage(source.source, { path: 'a.html', url: 'https://pages.example/a.html' })
}

it('is the sentence around the keyword in the first paragraph that has it, else the first paragraph (generated)', () => {
  const keyword = compileKeyword('boat trips', 'en')
  const sentence = fc
    .array(fc.constantFrom('boat', 'boats', 'trip', 'trips', 'the', 'sea', 'caves', 'by', 'Mr.', 'lamp'), {
      minLength: 1,
      maxLength: 12,
    })
    .map((words) => `${words.join(' ')}.`)
  const block = fc.array(sentence, { minLength: 1, maxLength: 4 }).map((sentences) => sentences.join(' '))
  fc.assert(
    fc.property(fc.array(block, { maxLength: 8 }), (blocks) => {
      const page = pageOf(blocks)
      const paragraphs = paragraphsOf(page)
      const at = paragraphs.findIndex((text) => hasKeyword(text, keyword))
      const passage = passageFor(page, keyword)
      if (paragraphs.length === 0) expect(passage).toBeNull()
      else if (at < 0)
        expect(passage).toEqual({
          text: paragraphs[0]!.slice(0, 400),
          from: 'the first paragraph',
          paragraph: 1,
        })
      else {
        expect(passage).toMatchObject({ from: 'around the keyword', paragraph: at + 1 })
        expect(paragraphs[at]).toContain(passage!.text)
        expect(passage!.text).toMatch(/boat|trip/)
      }
    }),
    { numRuns: 500 },
  )
})
