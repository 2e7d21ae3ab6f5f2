/** The guide beside the view, opened at the section that is about it. */
import { Dialog as Radix } from 'radix-ui'
import { Suspense, lazy, useState } from 'react'
import { useCommand } from '../ui/command-registry.ts'

const GuideSections = lazy(() => import('./guide-sections.tsx'))

/** Beside the routes, as the palette is: it stays open while one goes from view to view. */
export function GuidePanel() {
  const [isOpen, setOpen] = useState(false)
  useCommand('guide', () => setOpen((open) => !open))
  return (
    <Radix.Root open={isOpen} onOpenChange={setOpen} modal={false}>
      <Radix.Portal>
        <Radix.Content
          aria-describedby=""
          // One reads here and works there.
          onInteractOutside={(e) => e.preventDefault()}
          className="sheet fixed top-[52px] right-0 bottom-0 z-30 flex w-[420px] max-w-full flex-col border-l border-rule shadow-lg max-[700px]:top-0"
        >
          <Radix.Title className="px-6 pt-5 font-serif text-[22px] leading-7">Guide</Radix.Title>
          <Radix.Close className="quiet absolute top-5 right-6 text-[13px]">Close</Radix.Close>
          <Suspense fallback={<p className="px-6 text-ink-2">Opening …</p>}>
            <GuideSections />
          </Suspense>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
