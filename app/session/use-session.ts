import { useMemo, useSyncExternalStore } from 'react'
import { useOutletContext } from 'react-router'
import type { Session, SessionState } from './session.ts'

/** The open site's session, from the site's route. */
export const useSession = (): Session => useOutletContext<Session>()

/** The session's state, followed. */
export function useSessionState(session: Session): SessionState {
  return useSyncExternalStore(session.subscribe, session.get, session.get)
}

/** Parts of the session's state, followed: what changes beside them draws nothing anew. `parts` is always the same list. */
export function useSessionParts<Part extends keyof SessionState>(
  session: Session,
  parts: readonly Part[],
): Pick<SessionState, Part> {
  const get = useMemo(() => pickerOf(session, parts), [session, parts])
  return useSyncExternalStore(session.subscribe, get, get)
}

/** One value worked out from the state, followed: where it comes out the same, nothing is drawn anew. */
export function useSessionValue<Value extends string | number | boolean | null>(
  session: Session,
  valueOf: (state: SessionState) => Value,
): Value {
  const get = () => valueOf(session.get())
  return useSyncExternalStore(session.subscribe, get, get)
}

/** Gives the parts as one object, the same one until a part has changed. */
export function pickerOf<Part extends keyof SessionState>(
  session: Pick<Session, 'get'>,
  parts: readonly Part[],
): () => Pick<SessionState, Part> {
  let kept: Pick<SessionState, Part> | null = null
  return () => {
    const now = session.get()
    if (kept === null || parts.some((part) => kept![part] !== now[part]))
      kept = Object.fromEntries(parts.map((part) => [part, now[part]])) as Pick<SessionState, Part>
    return kept
  }
}
