import { ErrorBoundary } from 'react-error-boundary'

/** What is shown where a view could not be drawn or its answer did not come. */
export function Problem({ why, onAgain }: { why: string; onAgain(): void }) {
  return (
    <section role="alert" className="sheet mt-4 max-w-2xl px-7 py-6" data-testid="problem">
      <h2 className="font-serif text-[19px]">This could not be shown</h2>
      <p className="mt-2 break-words">{why}</p>
      <p className="mt-2 text-ink-2">Your work is kept. The other pages and views go on working.</p>
      <button type="button" className="button mt-4" onClick={onAgain}>
        Try again
      </button>
    </section>
  )
}

/** Keeps what breaks in one view from taking the others along; what was shown comes back when `on` changes. */
export function Boundary({ on, children }: { on: readonly unknown[]; children: React.ReactNode }) {
  return (
    <ErrorBoundary
      resetKeys={[...on]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <Problem why={error instanceof Error ? error.message : String(error)} onAgain={resetErrorBoundary} />
      )}
    >
      {children}
    </ErrorBoundary>
  )
}
