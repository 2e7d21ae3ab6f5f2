/** What a drop or a picker gives, as one of the kinds of intake. */
import type { IntakeInput } from '../workers/open-input.ts'

/** Whether a file is a sheet by its name. */
export const isSheet = (file: File): boolean => /\.(?:csv|tsv|xlsx|ods|xls)$/i.test(file.name)

const isZip = (file: File) => /\.zip$/i.test(file.name) || file.type === 'application/zip'

/** Files of a picker, with the folder's own name taken off their paths. */
export function fromPicker(list: FileList): IntakeInput | null {
  const files = [...list]
  if (files.length === 0) return null
  const folder = files[0]!.webkitRelativePath.split('/')[0] ?? ''
  if (folder !== '')
    return {
      kind: 'files',
      name: folder,
      files: files.map((file) => ({ path: file.webkitRelativePath.slice(folder.length + 1), file })),
    }
  return fromFiles(files)
}

/** Files without a folder: one is a ZIP or a page; several are a folder of their own. */
export function fromFiles(files: File[]): IntakeInput | null {
  const [first] = files
  if (!first) return null
  if (files.length === 1) return isZip(first) ? { kind: 'zip', file: first } : { kind: 'page', file: first }
  return { kind: 'files', name: '', files: files.map((file) => ({ path: file.name, file })) }
}

/** A dropped folder is walked; one dropped file is a ZIP or a page; several files are a folder of their own. */
export async function fromDrop(transfer: DataTransfer): Promise<IntakeInput | null> {
  const entries = [...transfer.items].flatMap((item) => {
    const entry = item.kind === 'file' ? item.webkitGetAsEntry() : null
    return entry ? [entry] : []
  })
  if (!entries.some((e) => e.isDirectory)) return fromFiles([...transfer.files])
  const files: { path: string; file: File }[] = []
  for (const entry of entries) await collect(entry, entries.length === 1 ? '' : entry.name, files)
  return { kind: 'files', name: entries.length === 1 ? entries[0]!.name : '', files }
}

async function collect(
  entry: FileSystemEntry,
  path: string,
  into: { path: string; file: File }[],
): Promise<void> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) =>
      (entry as FileSystemFileEntry).file(resolve, reject),
    )
    into.push({ path: path || entry.name, file })
    return
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  // A reader gives a hundred entries at a time, and none when it is done.
  for (;;) {
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    )
    if (batch.length === 0) return
    for (const child of batch) await collect(child, path === '' ? child.name : `${path}/${child.name}`, into)
  }
}
