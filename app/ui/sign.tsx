import type { Sign as SignName } from '../../core/rules/rule.ts'
import type { Severity } from '../../core/rules/house-style.ts'

const paths: Record<SignName | 'stet', React.ReactNode> = {
  missing: <path d="M4 17 12 7l8 10" />,
  'too-much': <path d="M2 13h14c5 0 6-7 2-7s-4 9 1 12" />,
  order: <path d="M3 7c3 5 6 5 9 5s6 0 9-5M3 17c3-5 6-5 9-5s6 0 9 5" />,
  alike: <path d="M2 14c3-7 6-7 8-1s5 6 8-1c1-2 2-3 4-3" />,
  stet: (
    <g fill="currentColor" stroke="none">
      <circle cx="5" cy="13" r="1.6" />
      <circle cx="12" cy="13" r="1.6" />
      <circle cx="19" cy="13" r="1.6" />
    </g>
  ),
}

const colours: Record<Severity, string> = { blocker: 'text-carmine', flaw: 'text-ink', nit: 'text-sign' }

/** A proofreader's sign (our own drawing): the shape says what is the matter, the words beside it how serious it is. */
export function Sign({
  name,
  severity,
  size = 24,
}: {
  name: SignName | 'stet'
  severity: Severity
  size?: number
}) {
  return (
    <svg
      aria-hidden
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.8"
      strokeLinecap="round"
      strokeLinejoin="round"
      className={`shrink-0 ${name === 'stet' ? 'text-sign' : colours[severity]}`}
    >
      {paths[name]}
    </svg>
  )
}
