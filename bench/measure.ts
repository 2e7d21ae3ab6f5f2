/** Widths a second against a canvas, both in Chromium, on the same strings in the shipped font. */
import { readFileSync } from 'node:fs'
import { build } from 'esbuild'
import { launch, NAME_HELPER } from '../tests/fixtures/chromium.ts'
import { say } from './ratio.ts'

export async function benchMeasure(): Promise<void> {
  const { outputFiles } = await build({
    stdin: {
      contents: "import { textWidth } from './core/measure/width.ts'; globalThis.textWidth = textWidth",
      resolveDir: process.cwd(),
      loader: 'ts',
    },
    bundle: true,
    write: false,
    format: 'iife',
  })
  const font = readFileSync('node_modules/@fontsource/arimo/files/arimo-latin-400-normal.woff2', 'base64')
  const browser = await launch()
  const page = await browser.newPage()
  await page.setContent(
    `<style>@font-face{font-family:Arimo;src:url(data:font/woff2;base64,${font})}</style><p style="font-family:Arimo">x</p>`,
  )
  await page.addScriptTag({ content: outputFiles[0]!.text })
  await page.evaluate(NAME_HELPER)
  const ratio = await page.evaluate(async () => {
    await document.fonts.ready
    const { textWidth } = globalThis as unknown as { textWidth(text: string, size: number): unknown }
    const context = document.createElement('canvas').getContext('2d')!
    context.font = '20px Arimo'
    context.fontKerning = 'normal'
    const words =
      'Climb the tower at dusk with the keeper and see the old lamp lit over the harbour wall in winter'.split(
        ' ',
      )
    let n = 0
    const next = () =>
      Array.from({ length: 8 }, () => words[(n = (n * 1103515245 + 12345) % 2147483648) % words.length]).join(
        ' ',
      ) + n
    const rates: number[][] = [[], []]
    for (let round = 0; round < 8; round++)
      for (const [i, job] of [
        (t: string) => textWidth(t, 20),
        (t: string) => context.measureText(t).width,
      ].entries()) {
        const texts = Array.from({ length: 4000 }, next)
        const start = performance.now()
        for (const text of texts) job(text)
        if (round > 0) rates[i]!.push(texts.length / (performance.now() - start))
      }
    const middle = (v: number[]) => v.sort((a, b) => a - b)[v.length >> 1]!
    return { ratio: middle(rates[0]!) / middle(rates[1]!), thousands: middle(rates[0]!) }
  })
  await browser.close()
  console.log('')
  say('strings measured a second ÷ canvas measureText, both in Chromium', ratio.ratio)
  say('strings measured, thousands a second', ratio.thousands)
}
