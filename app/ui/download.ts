/** Saves bytes or text as a file of the browser's. */
export function download(
  name: string,
  content: Uint8Array | string,
  type = 'application/octet-stream',
): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }))
  const link = Object.assign(document.createElement('a'), { href: url, download: name })
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}

/** A file name made of a site's name. */
export const fileName = (name: string, ending: string): string =>
  `${
    name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9.]+/g, '-')
      .replace(/^-+|-+$/g, '') || 'site'
  }${ending}`
