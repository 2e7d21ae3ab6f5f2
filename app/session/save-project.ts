/** A site with all its work as a project file on the disk. */
import type { SiteRecord } from '../store/db.ts'
import { noteProjectSaved } from '../store/room.ts'
import { download, fileName } from '../ui/download.ts'
import { core } from '../workers/client.ts'
import { settled } from './session.ts'

/** Whether there was anything to save: a site may have been taken off the shelf in another tab. */
export async function saveProject(site: SiteRecord): Promise<boolean> {
  await settled()
  const bytes = await core().exportProject(site.id)
  if (!bytes) return false
  download(fileName(site.name, '.keen-quill.zip'), bytes, 'application/zip')
  await noteProjectSaved(site)
  return true
}
