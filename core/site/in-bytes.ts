/** `340 kB`, `2.4 MB`: a thousand bytes to the kB, as files are sold; one decimal from a million on. */
export function inBytes(bytes: number): string {
  if (bytes < 1_000) return `${bytes} bytes`
  if (bytes < 999_500) return `${Math.round(bytes / 1_000).toLocaleString('en')} kB`
  return `${(bytes / 1_000_000).toLocaleString('en', { minimumFractionDigits: 1, maximumFractionDigits: 1 })} MB`
}
