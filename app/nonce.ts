import { createContext, useContext } from 'react'

/** The Content-Security-Policy's nonce of this page, for what creates style or script elements. */
export const NonceContext = createContext('')
export const useNonce = (): string => useContext(NonceContext)
