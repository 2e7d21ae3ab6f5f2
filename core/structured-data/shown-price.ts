/** A price as a result shows it; apart from the reading of data, which a window does not need. */

/** An amount with its currency as the page's language writes it; as it stands where it cannot be told. */
export function shownPrice(
  { amount, currency }: { amount: string; currency: string | null },
  lang: string | null,
): string {
  const number = Number(amount)
  if (!Number.isFinite(number) || !currency || !/^[A-Z]{3}$/.test(currency))
    return [amount, currency].filter(Boolean).join(' ')
  const whole = Number.isInteger(number) ? 0 : 2
  try {
    return new Intl.NumberFormat(lang ?? 'en', {
      style: 'currency',
      currency,
      minimumFractionDigits: whole,
    }).format(number)
  } catch {
    return `${amount} ${currency}`
  }
}
