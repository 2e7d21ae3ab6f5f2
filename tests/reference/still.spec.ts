/**
 * Pages that are looked at, in Chromium, whose own network log is the reference: nothing runs and nothing is asked for,
 * whatever a page holds. The same pages as they are, in a frame that lets them, show that there was something to keep from.
 */
import { expect, test, type Page } from '@playwright/test'
import { readSource } from '../../core/page/source/source.ts'
import { stillPage } from '../../core/page/still/still-page.ts'
import { hostileFrames } from '../fixtures/hostile-frames.ts'

const HOST = 'https://host.example/'

/** A page of ours with these documents in frames; everything that is asked for beside it is listed and refused. */
async function frames(page: Page, documents: string[], sandbox: string | null): Promise<string[]> {
  const asked: string[] = []
  await page.route('**/*', (route) => {
    const url = route.request().url()
    if (url === HOST)
      return route.fulfill({ contentType: 'text/html', body: '<!doctype html><title>h</title>' })
    asked.push(url)
    return route.abort()
  })
  await page.goto(HOST)
  await page.evaluate(
    async ([all, box]) => {
      await Promise.all(
        all.map((html) => {
          const frame = document.createElement('iframe')
          if (box !== null) frame.setAttribute('sandbox', box)
          frame.srcdoc = html
          // One that leads elsewhere may never say that it is there.
          const there = new Promise((resolve) => {
            frame.onload = resolve
            setTimeout(resolve, 10_000)
          })
          document.body.append(frame)
          return there
        }),
      )
    },
    [documents, sandbox] as const,
  )
  return asked
}
const ran = (page: Page) => page.evaluate(() => (globalThis as { ran?: number }).ran ?? 0)

async function stills(): Promise<string[]> {
  const made: string[] = []
  for (const html of Object.values(hostileFrames)) {
    const read = readSource(new TextEncoder().encode(html))
    if (!read.ok) throw new Error(read.why)
    made.push((await stillPage(read.source, 'https://site.example/page.html', async () => null)).html)
  }
  return made
}

test('nothing runs in a still page, nothing is asked for, and nothing in it leads away', async ({ page }) => {
  const made = await stills()
  expect(made.length).toBeGreaterThan(100)
  const asked = await frames(page, made, 'allow-same-origin')
  // Whatever can be pressed is pressed.
  const left = await page.evaluate(() => {
    const gone: string[] = []
    for (const frame of document.querySelectorAll('iframe')) {
      const inside = frame.contentDocument!
      for (const element of inside.querySelectorAll('a, area, button, input, summary, details, form')) {
        const view = inside.defaultView!
        element.dispatchEvent(new view.MouseEvent('click', { bubbles: true, cancelable: true }))
        if (element instanceof view.HTMLElement) element.focus()
        if (element instanceof view.HTMLFormElement) element.requestSubmit()
      }
    }
    for (const frame of document.querySelectorAll('iframe'))
      if (!frame.contentWindow!.location.href.startsWith('about:srcdoc'))
        gone.push(frame.contentWindow!.location.href)
    return gone
  })
  expect(left).toEqual([])
  // Another page's load comes after whatever these would have asked for.
  await page.evaluate(
    () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
  )
  expect(asked).toEqual([])
  expect(await ran(page)).toBe(0)
})

test('not by the policy alone, nor by the frame alone: each would hold without the other', async ({
  page,
}) => {
  const made = await stills()
  const withoutPolicy = made.map((html) =>
    html.replace(/<meta http-equiv="Content-Security-Policy"[^>]*>/, ''),
  )
  expect(withoutPolicy.every((html, i) => html.length < made[i]!.length)).toBe(true)
  const asked = await frames(page, withoutPolicy, null)
  expect(asked).toEqual([])
  expect(await ran(page)).toBe(0)
})

test('the same pages as they are run and ask where a frame lets them', async ({ page }) => {
  const asked = await frames(page, Object.values(hostileFrames), 'allow-scripts allow-same-origin')
  expect(await ran(page)).toBeGreaterThan(10)
  expect(new Set(asked).size).toBeGreaterThan(30)
})
