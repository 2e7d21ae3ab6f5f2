/** Structured data: `quill check-data` against the reference processor's bare expansion; the Data sheet in Chromium. */
import jsonld from 'jsonld'
import { dataFileOfDocument, dataReports } from '../core/exchange/data-report.ts'
import { defaultStyle } from '../core/rules/house-style.ts'
import { launch, NAME_HELPER, serve } from '../tests/fixtures/chromium.ts'
import { invalidDocuments, validDocuments } from '../tests/fixtures/data-documents.ts'
import { BASE, schemaLoader } from '../tests/fixtures/expansion.ts'
import { median, say } from './ratio.ts'

const PORT = 4477
const BLOCKS = 10_000
const ROUNDS = 9

/** Documents of every feature, right and wrong, with names of their own, as a large shop's pages would have them. */
function documents(): string[] {
  const some = [
    ...Object.values(validDocuments),
    ...Object.values(invalidDocuments).flatMap(({ data }) => (typeof data === 'string' ? [] : [data])),
  ].map((d) => JSON.stringify(d, null, 2))
  return Array.from({ length: BLOCKS }, (_, i) =>
    some[i % some.length]!.replace(/"name": "/, `"name": "${i} `).replaceAll(
      'farrowskerry.example',
      `shop-${i}.example`,
    ),
  )
}

export async function benchData(): Promise<void> {
  const all = documents()
  const bytes = all.map((d) => new TextEncoder().encode(d))
  const ours = () => {
    const files = bytes.map((b, i) => ({
      path: `${i}.jsonld`,
      read: () => ({
        ok: true as const,
        value: dataFileOfDocument(`${i}.jsonld`, `https://site.example/${i}.jsonld`, b),
      }),
    }))
    return dataReports(files, defaultStyle, '2026-11-25', 'https://site.example/', false)
  }
  const theirs = async () => {
    for (const text of all)
      try {
        await jsonld.expand(JSON.parse(text) as object, { base: BASE, documentLoader: schemaLoader } as never)
      } catch {
        // A context that nothing is known of: refused there, listed here.
      }
  }
  // Each round's two stand side by side, so that a machine that slows down slows both.
  const ratios: number[] = []
  const times: number[] = []
  for (let i = 0; i <= ROUNDS; i++) {
    let start = performance.now()
    ours()
    const own = performance.now() - start
    start = performance.now()
    await theirs()
    if (i > 0) {
      times.push(own)
      ratios.push(own / (performance.now() - start))
    }
  }
  console.log('')
  say(
    `check-data on ${BLOCKS.toLocaleString('en')} blocks ÷ JSON.parse and jsonld's expansion`,
    median(ratios),
    'under 1',
  )
  say('the same: blocks a second', BLOCKS / (median(times) / 1000))

  const server = await serve(PORT, { KEEN_QUILL_DEMO: '1' })
  const browser = await launch()
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(server.address)
    await page.getByRole('link', { name: 'Open the ledger' }).click()
    await page.getByTestId('what-is-left').waitFor()
    const site = /sites\/([^/]+)/.exec(page.url())![1]!
    await page.goto(`${server.address}/sites/${site}/desk?page=stories%2Ffresnel-lens.html&sheet=data`)
    await page.getByTestId('block').waitFor()
    await page.evaluate(NAME_HELPER)
    const opened = await page.evaluate(async () => {
      // A tab opens when the button goes down on it.
      const open = (name: string) =>
        [...document.querySelectorAll<HTMLElement>('[role=tab]')]
          .find((t) => t.textContent === name)!
          .dispatchEvent(new MouseEvent('mousedown', { bubbles: true, button: 0 }))
      const until = async (there: () => boolean) => {
        while (!there()) await new Promise((r) => requestAnimationFrame(r))
      }
      const out: number[] = []
      for (let i = 0; i < 24; i++) {
        open('Outline')
        await until(() => !document.querySelector('[data-testid=data]'))
        await new Promise((r) => setTimeout(r, 120))
        const start = performance.now()
        open('Data')
        await until(() => document.querySelector('[data-testid=block]') !== null)
        if (i >= 4) out.push(performance.now() - start)
      }
      return out
    })
    say('the Data sheet opens, median ms', median(opened), 'under 100')
    await page.getByRole('button', { name: 'Something else …' }).click()
    await page.getByTestId('types').getByRole('button').first().waitFor()
    const searched = await page.evaluate(async () => {
      const field = document.querySelector<HTMLInputElement>('[aria-label="Find a type"]')!
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!
      const list = () => document.querySelector('[data-testid=types]')!.textContent
      const out: number[] = []
      for (let i = 0; i < 24; i++) {
        const before = list()
        const start = performance.now()
        set.call(field, ['boat', 'museum', 'film', 'recipe', 'person'][i % 5])
        field.dispatchEvent(new Event('input', { bubbles: true }))
        await new Promise<void>((resolve) => {
          const seen = new MutationObserver(() => {
            if (list() === before) return
            seen.disconnect()
            resolve()
          })
          seen.observe(document.querySelector('[data-testid=types]')!, {
            childList: true,
            subtree: true,
            characterData: true,
          })
        })
        if (i >= 4) out.push(performance.now() - start)
        await new Promise((r) => setTimeout(r, 40))
      }
      return out
    })
    say('vocabulary search, key to answer, median ms', median(searched), 'under 30')
    await page.keyboard.press('Escape')
    const typed = await page.evaluate(async () => {
      const field = [...document.querySelectorAll<HTMLInputElement>('input')].find(
        (f) => f.getAttribute('aria-label') === 'Headline',
      )!
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!
      const named = () => document.querySelector('[data-testid=block] h2')!.textContent
      const out: number[] = []
      for (let i = 0; i < 24; i++) {
        const start = performance.now()
        field.focus()
        set.call(field, `How a lens throws light, ${i}`)
        field.dispatchEvent(new Event('input', { bubbles: true }))
        while (!named()!.endsWith(`, ${i}`)) await new Promise((r) => setTimeout(r, 1))
        if (i >= 4) out.push(performance.now() - start)
        await new Promise((r) => setTimeout(r, 40))
      }
      return out
    })
    say('key in a field to the thing shown anew, median ms', median(typed))
  } finally {
    await browser.close()
    server.stop()
  }
}
