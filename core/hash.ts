/** FNV-1a over UTF-16 units, 32 bits twice with different starts: tells two states apart, guards nothing. */
export function hash(text: string): string {
  let a = 0x811c9dc5
  let b = 0x01234567
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193)
    b = Math.imul(b ^ text.charCodeAt(i), 0x01000193) ^ (b >>> 13)
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}`
}
