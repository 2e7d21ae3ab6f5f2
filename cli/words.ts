/** “1 page”, “2 pages”. */
export const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`
