import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { GripVertical } from 'lucide-react'
import { useId } from 'react'
import { pointing } from './pointing.ts'

const byKeys = { coordinateGetter: sortableKeyboardCoordinates }

/** Items that are put into another order by their handles: dragged, or with space, the arrow keys and space again. */
export function Sortable({
  ids,
  onMove,
  children,
}: {
  ids: string[]
  onMove(from: number, to: number): void
  children: React.ReactNode
}) {
  const sensors = useSensors(useSensor(PointerSensor, pointing), useSensor(KeyboardSensor, byKeys))
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      // What it says to those who do not see it would not do within a list.
      accessibility={{ container: document.body }}
      onDragEnd={({ active, over }) => {
        const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id ?? ''))]
        if (from >= 0 && to >= 0 && from !== to) onMove(from, to)
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

/** One of them, with its handle before what it shows. */
export function SortableItem({
  id,
  label,
  className = '',
  children,
  ...rest
}: {
  id: string
  /** What the handle moves. */
  label: string
  className?: string
  children: React.ReactNode
} & React.LiHTMLAttributes<HTMLLIElement>) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, isDragging } = useSortable({
    id,
  })
  return (
    <li
      {...rest}
      ref={setNodeRef}
      className={`${className} ${isDragging ? 'relative z-10 bg-quill-soft' : ''}`}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={label}
        title={`${label}: drag it, or press space and the arrow keys`}
        className="inline-flex h-6 w-5 shrink-0 cursor-grab touch-none items-center justify-center self-center text-ink-3 hover:text-ink"
      >
        <GripVertical size={14} aria-hidden />
      </button>
      {children}
    </li>
  )
}
