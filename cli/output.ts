/** Writes to stdout, whole, however slowly it is read; a reader that goes away ends the command quietly. */
let gone = false
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error
  gone = true
})

/** Ends when the text is on its way, so that a large report is never in memory whole. */
export const print = (text: string): Promise<void> =>
  new Promise((resolve, reject) => {
    if (gone || text === '') return resolve()
    process.stdout.write(text, (error) => {
      if (!error || (error as NodeJS.ErrnoException).code === 'EPIPE') resolve()
      else reject(error)
    })
  })

/** Whether nobody reads what is printed any more. */
export const nobodyReads = (): boolean => gone
