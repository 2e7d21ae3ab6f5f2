/** Where readers are who search: a market, and of a local one the place. */
import { marketNames, markets, type Market } from '../../core/keywords/phrases.ts'
import { Choice } from './choice.tsx'
import { PlaceField } from './place-field.tsx'

export function MarketChoice({
  market,
  onMarket,
  onPlace,
}: {
  market: Market
  onMarket(market: Market): void
  onPlace(place: string): void
}) {
  return (
    <>
      <Choice
        label="Readers"
        value={market}
        options={markets.map((value) => ({ value, name: marketNames[value] }))}
        onChange={(value) => onMarket(value)}
      />
      {market === 'local' && <PlaceField onPlace={onPlace} />}
    </>
  )
}
