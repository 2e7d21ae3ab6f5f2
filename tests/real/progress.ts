/** How often the interval of Progress holds the truth: simulated series with a known effect, seasons and noise. */
import { pageDays } from '../../core/progress/statistics.ts'
import { progressOf } from '../../core/progress/effect.ts'
import { seriesWith } from '../fixtures/progress-series.ts'

const RUNS = 1000

/** 92 to 98 % of the intervals hold the truth, and no effect is called one in at most 7 %. */
export function checkProgress(check: (what: string, ok: boolean, detail?: string) => void): void {
  for (const effect of [0, 0.05, 0.2]) {
    let holds = 0
    let called = 0
    for (let seed = 1; seed <= RUNS; seed++) {
      const { rows, changed } = seriesWith(effect, seed * 7919)
      const { clicks } = progressOf(pageDays(rows), changed, { weeks: 4, seed }).effect
      if (clicks && clicks.low <= effect && effect <= clicks.high) holds++
      if (clicks && (clicks.low > 0 || clicks.high < 0)) called++
    }
    const share = (100 * holds) / RUNS
    const calledShare = (100 * called) / RUNS
    const asked = share >= 92 && share <= 98 && (effect !== 0 || calledShare <= 7)
    check(
      `progress: the interval holds an effect of ${100 * effect} % in 92 to 98 % of ${RUNS} series`,
      asked,
      `${share.toFixed(1)} %; an effect is called in ${calledShare.toFixed(1)} %`,
    )
  }
}
