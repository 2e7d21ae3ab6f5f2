/**
 * Scripts that the shipped font lacks: measured with the fonts that this machine's Chromium takes, whichever they are, against
 * what it draws. `npm run check-real scripts` does so at length, with Debian's Noto fonts.
 */
import { expect, test } from '@playwright/test'
import { NAME_HELPER } from '../fixtures/chromium.ts'
import { drawnIn, scripts, textsIn, type Script } from '../fixtures/other-scripts.ts'

test('40 texts in each of six scripts are measured as Chromium draws them, to 2 px, and cut where it cuts them', async ({
  page,
}) => {
  await page.addInitScript(NAME_HELPER)
  await page.goto('/about')
  for (const script of Object.keys(scripts) as Script[]) {
    const drawn = await drawnIn(page, textsIn(script, 40), '', 600, 20)
    expect(drawn.length).toBe(40)
    // Where a machine has no font for them, all are estimated, and said to be.
    const measured = drawn.filter((one) => !one.isEstimated)
    for (const one of measured) expect(Math.abs(one.measured - one.drawn), one.text).toBeLessThanOrEqual(2)
    const cut = measured.filter((one) => one.staysDrawn < one.text.length)
    expect(cut.length).toBeGreaterThanOrEqual(measured.length / 10)
    const otherwise = cut.filter((one) => one.stays !== one.staysDrawn)
    expect(otherwise.length, otherwise.map((one) => one.text).join('\n')).toBeLessThanOrEqual(cut.length / 20)
  }
})
