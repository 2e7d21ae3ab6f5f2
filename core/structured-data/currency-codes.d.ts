declare module 'currency-codes/data.js' {
  /** ISO 4217, list one. */
  const currencies: { code: string; number: string; digits: number; currency: string; countries: string[] }[]
  export default currencies
}
