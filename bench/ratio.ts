/** Ratios within one run: interleaved rounds, the median of each. */
export const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!
export const percentile = (values: number[], p: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * p))]!

/** Runs every job once a round, in turn, so that a slow moment of the machine falls on all of them alike; ms, medians. */
export function interleave<K extends string>(
  rounds: number,
  jobs: Record<K, () => unknown>,
): Record<K, number> {
  const times = Object.fromEntries(Object.keys(jobs).map((k) => [k, [] as number[]])) as Record<K, number[]>
  for (let i = 0; i <= rounds; i++)
    for (const [name, job] of Object.entries(jobs) as [K, () => unknown][]) {
      const start = performance.now()
      job()
      // The first round warms the engine up and is not counted.
      if (i > 0) times[name].push(performance.now() - start)
    }
  return Object.fromEntries((Object.keys(jobs) as K[]).map((k) => [k, median(times[k])])) as Record<K, number>
}

export function say(what: string, value: number | string, budget = ''): void {
  const shown = typeof value === 'number' ? value.toFixed(2) : value
  console.log(`${what.padEnd(68)} ${shown.padStart(9)}  ${budget}`)
}
