/** What core may use of the platform beside the language: standards that browsers, workers and Node share. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean })
  readonly encoding: string
  decode(input?: Uint8Array, options?: { stream?: boolean }): string
}
declare class TextEncoder {
  encode(input?: string): Uint8Array
}
declare class URL {
  constructor(url: string, base?: string)
  static canParse(url: string, base?: string): boolean
  href: string
  readonly origin: string
  protocol: string
  pathname: string
  search: string
  hash: string
  host: string
}
