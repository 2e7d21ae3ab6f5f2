/** A page with one JSON-LD block, for the examples of the rules of this family. `@context` is schema.org's unless given. */
export const described = (data: unknown, body = ''): string => {
  const whole = Array.isArray(data) ? data : { '@context': 'https://schema.org', ...(data as object) }
  return `<title>x</title><script type="application/ld+json">${JSON.stringify(whole)}</script><body><main>${body}</main>`
}
