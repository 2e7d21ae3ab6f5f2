import { Select } from 'radix-ui'

/** A choice as a line of print: what it is about, and the value, underlined. */
export function Choice<V extends string>({
  label,
  value,
  options,
  onChange,
  isLabelHidden = false,
}: {
  label: string
  value: V
  /** Options with the same group stand together, under its name. */
  options: { value: V; name: string; group?: string }[]
  onChange(value: V): void
  /** The label is read and not drawn: what stands around says it. */
  isLabelHidden?: boolean
}) {
  return (
    <Select.Root value={value} onValueChange={(v) => onChange(v as V)}>
      <Select.Trigger aria-label={label} className="border-b border-ink-3 pb-0.5 text-ink-2 hover:border-ink">
        {!isLabelHidden && `${label} `}
        <strong className="font-semibold text-ink">
          <Select.Value />
        </strong>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={6}
          className="sheet z-30 max-h-[60vh] overflow-auto py-1"
        >
          <Select.Viewport>
            {[...new Set(options.map((o) => o.group))].map((group) => (
              <Select.Group key={group ?? ''}>
                {group && (
                  <Select.Label className="px-4 pt-2.5 pb-0.5 font-serif text-[14px] text-ink-3 italic">
                    {group}
                  </Select.Label>
                )}
                {options
                  .filter((o) => o.group === group)
                  .map((option) => (
                    <Select.Item
                      key={option.value}
                      value={option.value}
                      className="cursor-pointer px-4 py-1.5 outline-none data-highlighted:bg-quill-soft"
                    >
                      <Select.ItemText>{option.name}</Select.ItemText>
                    </Select.Item>
                  ))}
              </Select.Group>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  )
}
