import { chromium, type Browser } from '@playwright/test'

/** tsx names functions by a helper of its own, which a page does not have: for `page.addInitScript` or `evaluate`. */
export const NAME_HELPER = 'globalThis.__name = (f) => f'

export const launch = (): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
