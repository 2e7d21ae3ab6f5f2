/** Files that the system opens with the installed application. */
import { useEffect, useRef } from 'react'

interface LaunchQueue {
  setConsumer(consumer: (launch: { files?: readonly { getFile(): Promise<File> }[] }) => void): void
}

/** Hands over what was opened, one launch at a time; does nothing in browsers that do not open files so. */
export function useOpenedFiles(onFiles: (files: File[]) => void): void {
  const newest = useRef(onFiles)
  useEffect(() => void (newest.current = onFiles))
  useEffect(() => {
    const queue = (globalThis as { launchQueue?: LaunchQueue }).launchQueue
    queue?.setConsumer(({ files }) => {
      if (files && files.length > 0)
        void Promise.all(files.map((file) => file.getFile())).then((opened) => newest.current(opened))
    })
  }, [])
}
