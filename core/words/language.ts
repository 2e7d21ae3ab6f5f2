/** A language tag of BCP 47 by its shape: `en`, `da-DK`. Whether such a language exists is not asked. */
export const languagePattern = /^[a-z]{2,3}(?:-[a-z0-9]{1,8})*$/i
