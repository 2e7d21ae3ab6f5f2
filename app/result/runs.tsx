import type { Run } from './emphasis.ts'

/** Runs of text as a result draws them. */
export function Runs({ runs }: { runs: Run[] }) {
  return runs.map((run, i) =>
    run.weight === 'bold' ? (
      <b key={i} className="font-bold">
        {run.text}
      </b>
    ) : (
      run.text
    ),
  )
}
