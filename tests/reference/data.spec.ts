/**
 * Structured data written into pages, read by Chromium's own HTML parser and its JSON.parse: the same JSON, and nothing
 * of it run. WHATWG HTML 4.12.1.3 is what a script element's content must keep to.
 */
import { expect, test } from '@playwright/test'
import fc from 'fast-check'
import { applyDraft } from '../../core/page/proof.ts'
import { readSource } from '../../core/page/source/source.ts'
import { pretty, setValue } from '../../core/json/edit-json.ts'

const hostile = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.constantFrom(
    '</script><script>window.ran = 1</script>',
    '</SCRIPT ><img src=x onerror="window.ran = 1">',
    '<!-- <script>window.ran = 1</script>',
    '--><svg onload=window.ran=1>',
    '<!--<script>',
    '\u2028window.ran = 1\u2029',
    ']]>',
    '&lt;/script&gt;',
    '"}</script>',
    '\\u003c/script>',
    '\u0000\u0001\u001f',
    '\ud800',
    'Fyrtårn 灯台 😀',
  ),
)
const data = fc.record({
  '@context': fc.constant('https://schema.org'),
  '@type': fc.constant('Product'),
  name: hostile,
  description: hostile,
  offers: fc.array(fc.record({ '@type': fc.constant('Offer'), name: hostile, price: fc.integer() }), {
    maxLength: 2,
  }),
})
const encodings = ['utf-8', 'windows-1252', 'iso-8859-2'] as const

test('hostile strings in every value come through a page unchanged, and nothing is run', async ({ page }) => {
  const samples = fc.sample(fc.tuple(data, hostile, fc.constantFrom(...encodings)), {
    numRuns: 80,
    seed: 20261125,
  })
  let n = 0
  await page.route('https://pages.example/**', async (route) => {
    const [value, changed, charset] = samples[n]!
    const html = `<!doctype html><html><head><meta charset="${charset}"><title>x</title>\n<script type="application/ld+json">\n{"@type": "Thing", "name": "before"}\n</script></head><body><p>text</body></html>`
    const source = readSource(new TextEncoder().encode(html))
    if (!source.ok) throw new Error(source.why)
    const at = html.indexOf('<script')
    const proof = applyDraft(source.source, {
      'data:new': { value: pretty(value) },
      [`jsonld@${at}`]: { value: setValue('\n{"@type": "Thing", "name": "before"}\n', '/name', changed) },
    })
    expect(proof.refused).toEqual([])
    await route.fulfill({ body: Buffer.from(proof.source.bytes), contentType: 'text/html' })
  })
  for (n = 0; n < samples.length; n++) {
    await page.goto(`https://pages.example/${n}`)
    const read = await page.evaluate(() => ({
      blocks: [...document.querySelectorAll('script[type="application/ld+json"]')].map((s) =>
        JSON.stringify(JSON.parse(s.textContent!)),
      ),
      scripts: document.querySelectorAll('script, img, svg').length,
      ran: 'ran' in window,
      body: document.body.textContent!.trim(),
    }))
    const [value, changed] = samples[n]!
    expect(read.blocks, String(n)).toEqual([
      JSON.stringify({ '@type': 'Thing', name: changed }),
      JSON.stringify(value),
    ])
    expect({ ...read, blocks: [] }).toEqual({ blocks: [], scripts: 2, ran: false, body: 'text' })
  }
})
