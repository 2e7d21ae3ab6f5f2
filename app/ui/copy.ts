import { toast } from 'sonner'

/** Puts a text on the clipboard and says so. */
export async function copyText(text: string, what: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text)
    toast(text === '' ? `${what}: there is nothing to copy.` : `${what} copied.`)
  } catch {
    toast.error('The browser does not allow copying here.')
  }
}
