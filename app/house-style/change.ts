import type { AddressStyle, HouseStyle } from '../../core/rules/house-style.ts'

/** Changes the house style. What changes is worked out from the style as it is by then: two quick changes both hold. */
export type Change = (make: (style: HouseStyle) => Partial<HouseStyle>, label: string) => void
/** The same for what is asked of one address pattern. */
export type ChangeAddress = (make: (address: AddressStyle) => AddressStyle, label: string) => void
