/**
 * Whether a path from the root is one that a pattern such as `/stories/*` means, `*` standing for anything. Each part
 * between stars is sought once, behind the one before it, so that no pattern can keep it busy.
 */
export function matchesAddress(pattern: string, path: string): boolean {
  const [first = '', ...rest] = pattern.split('*')
  const last = rest.pop()
  if (last === undefined) return path === pattern
  if (!path.startsWith(first)) return false
  let at = first.length
  for (const part of rest) {
    const found = path.indexOf(part, at)
    if (found < 0) return false
    at = found + part.length
  }
  return path.length - last.length >= at && path.endsWith(last)
}
