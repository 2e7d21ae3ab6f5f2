/** Widths, cuts and line breaks in six scripts that the shipped font lacks, against Chromium with the machine's fonts. */
import { execFileSync } from 'node:child_process'
import { launch, NAME_HELPER, serve } from '../fixtures/chromium.ts'
import { drawnIn, scripts, textsIn, type Script } from '../fixtures/other-scripts.ts'

type Check = (what: string, ok: boolean, detail?: string) => void

const TEXTS = 200
/** The cut of a wide title. */
const COLUMN = 600
const SIZE = 20

export async function measureScripts(check: Check): Promise<void> {
  const hasFonts = execFileSync('fc-list', { encoding: 'utf8' }).includes('Noto')
  check('Debian’s Noto fonts are installed (fonts-noto-core, fonts-noto-cjk)', hasFonts)
  if (!hasFonts) return
  const { address, stop } = await serve(4475)
  const browser = await launch()
  try {
    const page = await browser.newPage()
    await page.addInitScript(NAME_HELPER)
    await page.goto(`${address}/about`)
    for (const script of Object.keys(scripts) as Script[]) {
      const drawn = await drawnIn(page, textsIn(script, TEXTS), scripts[script].lang, COLUMN, SIZE)
      const share = (is: (one: (typeof drawn)[number]) => boolean) =>
        `${((100 * drawn.filter(is).length) / drawn.length).toFixed(1)} %`
      const errors = drawn.map((one) => Math.abs(one.measured - one.drawn)).sort((a, b) => a - b)
      const estimates = drawn
        .map((one) => Math.abs(one.estimated - one.drawn) / one.drawn)
        .sort((a, b) => a - b)
      const worst = errors.at(-1)!
      check(
        `${script}: ${TEXTS} texts, width within 1 px ${share((one) => Math.abs(one.measured - one.drawn) <= 1)}, largest error ${worst.toFixed(2)} px`,
        // Kerning between a Latin letter and a full stop that reads the other way is not drawn: 1.5 px.
        worst <= 2,
        `estimated without the browser’s fonts: median ${(100 * estimates[estimates.length >> 1]!).toFixed(1)} %, largest ${(100 * estimates.at(-1)!).toFixed(1)} % off`,
      )
      const cut = drawn.filter((one) => one.staysDrawn < one.text.length)
      const alike = cut.filter((one) => one.stays === one.staysDrawn)
      check(
        `${script}: cut at the same letter in ${alike.length} of ${cut.length} texts that are cut`,
        alike.length >= cut.length * 0.95,
        cut
          .filter((one) => one.stays !== one.staysDrawn)
          .slice(0, 2)
          .map((one) => `${one.stays}, not ${one.staysDrawn}: ${one.text.slice(0, 60)}`)
          .join('; '),
      )
      check(`${script}: broken into the same lines: ${share((one) => one.lines === one.linesDrawn)}`, true)
    }
  } finally {
    await browser.close()
    stop()
  }
}
