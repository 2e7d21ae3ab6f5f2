/**
 * Widths and cuts against Chromium's own layout of the shipped font. Chromium is the reference; there is no published figure.
 */
import { expect, test, type Page } from '@playwright/test'
import { breakOffsets } from '../../core/measure/breaks.ts'
import { clampToLines, cutToEllipsis, type Cut } from '../../core/measure/cut.ts'
import { foldText, textWidth, type Weight } from '../../core/measure/width.ts'
import { sampleStrings } from './strings.ts'

async function openDrawing(page: Page, texts: string[]): Promise<void> {
  await page.goto('/about')
  await page.evaluate(async (all) => {
    for (const weight of [400, 700]) await document.fonts.load(`${weight} 20px Arimo`, all)
    await document.fonts.ready
    document.body.innerHTML = ''
  }, texts.join(''))
}

const drawnWidths = (page: Page, texts: string[], size: number, weight: number) =>
  page.evaluate(
    ({ texts, size, weight }) => {
      const host = document.createElement('div')
      host.className = 'result'
      host.style.cssText = `font-size:${size}px;font-weight:${weight};white-space:pre;position:absolute`
      document.body.append(host)
      const spans = texts.map((text) => {
        const line = document.createElement('div')
        const span = document.createElement('span')
        span.textContent = text
        line.append(span)
        host.append(line)
        return span
      })
      const widths = spans.map((span) => {
        const range = document.createRange()
        range.selectNodeContents(span)
        return range.getBoundingClientRect().width
      })
      host.remove()
      return widths
    },
    { texts, size, weight },
  )

for (const [size, weight] of [
  [20, 'regular'],
  [14, 'regular'],
  [20, 'bold'],
  [14, 'bold'],
] as [number, Weight][])
  test(`1,300 strings at ${size} px ${weight}: the width is Chromium’s to 0.05 px`, async ({ page }) => {
    const texts = sampleStrings(1300, [2, 12]).map(foldText)
    await openDrawing(page, texts)
    const drawn = await drawnWidths(page, texts, size, weight === 'bold' ? 700 : 400)
    const errors = texts
      .map((text, i) => ({
        text,
        error: Math.abs(textWidth(text, size, weight).px - drawn[i]!),
        estimated: textWidth(text, size, weight).estimatedPx,
      }))
      .filter((e) => e.estimated === 0)
      .sort((a, b) => b.error - a.error)
    expect(errors.length).toBeGreaterThan(1200)
    console.log(
      `${size} px ${weight}: ${errors.length} strings, largest error ${errors[0]!.error.toFixed(4)} px`,
    )
    expect(errors[0]).toMatchObject({ error: expect.any(Number) })
    expect(errors[0]!.error, errors[0]!.text).toBeLessThanOrEqual(0.05)
  })

/** Where Chromium breaks lines: the offset at which each line begins, from the rectangles of the characters. */
const drawnBreaks = (page: Page, texts: string[], px: number, size: number) =>
  page.evaluate(
    ({ texts, px, size }) =>
      texts.map((text) => {
        const host = document.createElement('div')
        host.className = 'result'
        host.style.cssText = `font-size:${size}px;width:${px}px;position:absolute`
        host.textContent = text
        document.body.append(host)
        const node = host.firstChild!
        const starts: number[] = []
        let top = -1
        for (let i = 0; i < text.length; i++) {
          const range = document.createRange()
          range.setStart(node, i)
          range.setEnd(node, i + 1)
          const box = range.getClientRects()[0]
          if (!box || box.width === 0) continue
          if (box.top > top + 2) {
            starts.push(i)
            top = box.top
          }
        }
        host.remove()
        return starts
      }),
    { texts, px, size },
  )

test('500 texts break into the same lines as in Chromium, at both columns: at least 99 %', async ({
  page,
}) => {
  const texts = sampleStrings(500, [10, 34], 11).map(foldText)
  await openDrawing(page, texts)
  for (const [px, size] of [
    [358, 20],
    [358, 14],
    [600, 14],
  ] as const) {
    const drawn = await drawnBreaks(page, texts, px, size)
    const wrong = texts.filter((text, i) => {
      const lines = clampToLines(text, px, 99, size).lines
      let at = 0
      const starts = lines.map((line) => {
        const found = text.indexOf(line, at)
        at = found + line.length
        return found
      })
      return starts.join() !== drawn[i]!.join()
    })
    console.log(`${px} px at ${size} px: ${texts.length - wrong.length} of ${texts.length} texts break alike`)
    expect(wrong.length, wrong.slice(0, 3).join('\n')).toBeLessThanOrEqual(texts.length / 100)
  }
})

/**
 * Draws each text twice, side by side: cut by the browser, and as we say it is cut. Returns the texts of which the
 * two pictures differ in any pixel.
 */
async function differing(
  page: Page,
  texts: string[],
  cuts: Cut[],
  px: number,
  size: number,
  lines: number,
  kerned: boolean,
): Promise<number[]> {
  const row = lines * 28 + 4
  const out: number[] = []
  for (let from = 0; from < texts.length; from += 150) {
    const batch = texts.slice(from, from + 150).map((text, i) => ({ text, cut: cuts[from + i]! }))
    await page.setViewportSize({ width: px * 2 + 100, height: batch.length * row })
    await page.evaluate(
      ({ batch, px, size, lines, row, kerned }) => {
        document.documentElement.style.background = '#fff'
        document.body.innerHTML = ''
        const add = (left: number, top: number, fill: (box: HTMLElement) => void) => {
          const box = document.createElement('div')
          box.className = 'result'
          box.style.cssText = `position:absolute;left:${left}px;top:${top}px;width:${px}px;font-size:${size}px;line-height:28px;color:#000`
          fill(box)
          document.body.append(box)
        }
        const wide = (text: string) => {
          const span = Object.assign(document.createElement('span'), {
            className: 'result',
            textContent: text,
          })
          span.style.cssText = `position:absolute;white-space:pre;font-size:${size}px`
          document.body.append(span)
          const { width } = span.getBoundingClientRect()
          span.remove()
          return width
        }
        const kern = (a: string, b: string) => (b === '' || !kerned ? 0 : wide(a + b) - wide(a) - wide(b))
        batch.forEach(({ text, cut }, i) => {
          add(0, i * row, (box) => {
            box.textContent = text
            box.style.cssText +=
              lines === 1
                ? ';overflow:hidden;white-space:nowrap;text-overflow:ellipsis'
                : `;overflow:hidden;display:-webkit-box;-webkit-box-orient:vertical;-webkit-line-clamp:${lines}`
          })
          add(px + 50, i * row, (box) => {
            cut.lines.forEach((line, k) => {
              const div = document.createElement('div')
              div.style.whiteSpace = 'pre'
              div.textContent = line
              if (cut.cut && k === cut.lines.length - 1) {
                // A box of its own, as the browser's sign is: no kerning with the letter before it.
                const sign = document.createElement('span')
                sign.style.display = 'inline-block'
                sign.textContent = '…'
                // The browser leaves the last letter the advance that it had before the letter that went.
                sign.style.marginLeft = `${kern(line.slice(-1), cut.lost.slice(0, 1))}px`
                div.append(sign)
              }
              box.append(div)
            })
          })
        })
      },
      { batch, px, size, lines, row, kerned },
    )
    const png = (await page.screenshot()).toString('base64')
    const bad = await page.evaluate(
      async ({ png, count, px, row }) => {
        const image = new Image()
        image.src = `data:image/png;base64,${png}`
        await image.decode()
        const canvas = Object.assign(document.createElement('canvas'), {
          width: image.width,
          height: image.height,
        })
        const context = canvas.getContext('2d', { willReadFrequently: true })!
        context.drawImage(image, 0, 0)
        const differ: number[] = []
        for (let i = 0; i < count; i++) {
          const a = context.getImageData(0, i * row, px, row).data
          const b = context.getImageData(px + 50, i * row, px, row).data
          if (a.some((v, k) => Math.abs(v - b[k]!) > 40)) differ.push(i)
        }
        return differ
      },
      { png, count: batch.length, px, row },
    )
    out.push(...bad.map((i) => from + i))
  }
  return out
}

test('500 texts are cut where Chromium’s ellipsis and line clamp cut them: at least 99 %', async ({
  page,
}) => {
  test.slow()
  // Without a final space before the cut, which is drawn as nothing either way.
  const texts = sampleStrings(500, [10, 30], 23).map(foldText)
  for (const [px, size, lines] of [
    [600, 20, 1],
    [358, 20, 2],
  ] as const) {
    await openDrawing(page, texts)
    const cuts = texts.map((text) =>
      lines === 1 ? cutToEllipsis(text, px, size) : clampToLines(text, px, lines, size),
    )
    expect(cuts.filter((c) => c.cut).length).toBeGreaterThan(300)
    // The sign stands where the kept letters end, with or without the kerning to the letter that went.
    let wrong = texts.map((_, i) => i)
    for (const kerned of [true, false]) {
      const left = wrong
      const still = await differing(
        page,
        left.map((i) => texts[i]!),
        left.map((i) => cuts[i]!),
        px,
        size,
        lines,
        kerned,
      )
      wrong = still.map((k) => left[k]!)
    }
    console.log(
      `${lines} line(s) of ${px} px at ${size} px: ${texts.length - wrong.length} of ${texts.length} texts look alike, ${cuts.filter((c) => c.cut).length} of them cut`,
    )
    expect(
      wrong.length,
      wrong
        .slice(0, 3)
        .map((i) => `${texts[i]} → ${cuts[i]!.lines.join(' / ')}`)
        .join('\n'),
    ).toBeLessThanOrEqual(texts.length / 100)
  }
})

test('breaks never fall inside a grapheme, whatever the text', () => {
  for (const text of sampleStrings(200, [5, 20], 31)) {
    const offsets = breakOffsets(text)
    expect(offsets.at(-1)).toBe(text.length)
    for (const o of offsets) expect(text.charCodeAt(o) >= 0xdc00 && text.charCodeAt(o) <= 0xdfff).toBe(false)
  }
})
