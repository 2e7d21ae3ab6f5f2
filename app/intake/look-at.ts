/** Looking at one page by its address, typed into the palette. */
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { today } from '../session/today.ts'
import { usePaletteGroup } from '../ui/command-registry.ts'
import { core } from '../workers/client.ts'

/** A scheme, or a name with a dot in it, and no space. */
const looksLikeAddress = (typed: string): boolean =>
  /^(?:https?:\/\/\S+|[\w-]+(?:\.[\w-]+)+(?:[/?]\S*)?)$/i.test(typed)

export function useLookAtAddress(): void {
  const navigate = useNavigate()
  async function look(address: string) {
    const waiting = toast.loading(`Asking for ${address} …`)
    const looked = await core()
      .lookAt(address, today())
      .catch((error: Error) => ({ ok: false as const, why: error.message }))
    toast.dismiss(waiting)
    if (looked.ok) void navigate(`/sites/${looked.site}/desk?page=${encodeURIComponent(looked.page)}`)
    else toast.error(looked.why, { duration: 10_000 })
  }
  usePaletteGroup('By address', (typed) =>
    looksLikeAddress(typed)
      ? [
          { id: 'look', name: `Look at the page ${typed}`, run: () => void look(typed) },
          {
            id: 'take',
            name: `Take in the site ${typed}`,
            run: () => void navigate(`/intake?address=${encodeURIComponent(typed)}`),
          },
        ]
      : [],
  )
}
