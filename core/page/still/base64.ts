/** Bytes as a data URL. Source: RFC 4648, section 4. */
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

export function toBase64(bytes: Uint8Array): string {
  const parts: string[] = []
  let part = ''
  for (let i = 0; i < bytes.length; i += 3) {
    const [a, b, c] = [bytes[i]!, bytes[i + 1], bytes[i + 2]]
    const bits = (a << 16) | ((b ?? 0) << 8) | (c ?? 0)
    part +=
      LETTERS[bits >> 18]! +
      LETTERS[(bits >> 12) & 63]! +
      (b === undefined ? '=' : LETTERS[(bits >> 6) & 63]!) +
      (c === undefined ? '=' : LETTERS[bits & 63]!)
    // Strings that grow without end are slow to read.
    if (part.length > 32_768) {
      parts.push(part)
      part = ''
    }
  }
  parts.push(part)
  return parts.join('')
}

export const dataUrl = (type: string, bytes: Uint8Array): string => `data:${type};base64,${toBase64(bytes)}`
