/** Forms: a field with its label, and problems that came with an answer. */
import { useId, useMemo } from 'react'
import type { FieldError, UseFormRegisterReturn } from 'react-hook-form'

/**
 * A field's problem that came with an answer, as `useForm` takes it. The same object until the problem is another: to the
 * form, another object is other errors, and it would draw itself without end.
 */
export const useProblemOf = <Field extends string>(
  field: Field,
  problem: string | null,
): { [F in Field]?: FieldError } =>
  useMemo(
    () =>
      (problem === null ? {} : { [field]: { type: 'server', message: problem } }) as {
        [F in Field]?: FieldError
      },
    [field, problem],
  )

/** A form's field with its label and, where what was entered will not do, what to do about it. */
export function FormField({
  label,
  help,
  error,
  registered,
  rows,
  className = '',
}: {
  label: React.ReactNode
  help?: React.ReactNode
  error: FieldError | undefined
  registered: UseFormRegisterReturn
  /** Lines of a field of several; one line without. */
  rows?: number
  className?: string
}) {
  const id = useId()
  const field = {
    ...registered,
    id,
    className: `field mt-1 ${className}`,
    'aria-invalid': error !== undefined,
    'aria-describedby': error || help ? `${id}-help` : undefined,
  }
  return (
    <>
      <label className="block font-semibold" htmlFor={id}>
        {label}
      </label>
      {rows ? <textarea rows={rows} {...field} /> : <input {...field} />}
      {(error || help) && (
        <p id={`${id}-help`} className="mt-1 text-[13px] text-ink-2">
          {error ? (
            <strong role="alert" className="text-carmine">
              {error.message}
            </strong>
          ) : (
            help
          )}
        </p>
      )}
    </>
  )
}
