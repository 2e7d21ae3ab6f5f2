/** Writes to stdout and waits for it, so that a large report is whole when the process ends. */
export const print = (text: string): Promise<void> =>
  new Promise((resolve, reject) => process.stdout.write(text, (error) => (error ? reject(error) : resolve())))
