import { useSyncExternalStore } from 'react'
import { useOutletContext } from 'react-router'
import type { Session, SessionState } from './session.ts'

/** The open site's session, from the site's route. */
export const useSession = (): Session => useOutletContext<Session>()

/** The session's state, followed. */
export function useSessionState(session: Session): SessionState {
  return useSyncExternalStore(session.subscribe, session.get, session.get)
}
