const types: Record<string, string> = {
  '.html': 'text/html',
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.json': 'application/json; charset=utf-8',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.woff2': 'font/woff2',
  '.woff': 'font/woff',
  '.txt': 'text/plain; charset=utf-8',
  '.xml': 'application/xml',
  '.csv': 'text/csv; charset=utf-8',
  '.webmanifest': 'application/manifest+json',
}

/** The media type of a file name's extension; a page's encoding is its own to declare. */
export const typeOf = (extension: string): string =>
  types[extension.toLowerCase()] ?? 'application/octet-stream'
