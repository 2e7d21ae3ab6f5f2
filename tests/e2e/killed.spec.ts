/** The browser is killed while bulk steps, undo, review and intake run. `npm run check-real killed` does it 300 times. */
import { expect, test } from '@playwright/test'
import { killRounds } from '../fixtures/killed-browser.ts'

test('killed ten times at random moments, nothing is there by halves and nothing that was saved is lost', async ({
  baseURL,
}) => {
  // Ten times a browser and a site are opened.
  test.setTimeout(900_000)
  const problems: string[] = []
  const { cutOff } = await killRounds(baseURL!, 10, 20261126, (problem) => problems.push(problem))
  expect(problems).toEqual([])
  expect(Object.values(cutOff).every((n) => n > 1)).toBe(true)
})
