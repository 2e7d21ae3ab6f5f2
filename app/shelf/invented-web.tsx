import { useRevalidator } from 'react-router'
import { chooseInventedWeb, type WebState } from '../store/invented-web.ts'
import { Choice } from '../ui/choice.tsx'

/** The demo's own setting: the sites that it invents, as they are now or some weeks later. */
export function InventedWeb({ state }: { state: WebState }) {
  const { revalidate } = useRevalidator()
  return (
    <p className="mt-3">
      <Choice
        label="Invented sites (tidewatch.example, farrowskerry.example)"
        value={state}
        options={[
          { value: 'first', name: 'as they are now' },
          { value: 'second', name: 'as they are some weeks later' },
        ]}
        onChange={(chosen) => void chooseInventedWeb(chosen).then(revalidate)}
      />
    </p>
  )
}
