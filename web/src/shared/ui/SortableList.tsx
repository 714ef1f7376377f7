import { Box } from '@chakra-ui/react'
import type { DragEndEvent } from '@dnd-kit/core'
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { GripVertical } from 'lucide-react'
import type { ReactNode } from 'react'

interface Item {
  readonly id: string
  readonly name: string
}

interface Props<T extends Item> {
  items: readonly T[]
  onMove: (from: number, to: number) => void
  /** One place in the list; `grip` is what it is dragged by. */
  children: (item: T, at: number, grip: ReactNode) => ReactNode
}

const START_PX = 4

/**
 * An ordered list that is put in order by dragging, with a mouse, a finger or the keyboard: Space on a grip lifts it, the arrow keys move it,
 * Space puts it down, Escape puts it back.
 */
export function SortableList<T extends Item>({ items, onMove, children }: Props<T>) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: START_PX } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const at = (id: unknown) => items.findIndex(item => item.id === id)
  const name = (id: unknown) => items[at(id)]?.name ?? ''
  const place = (id: unknown) => `place ${at(id) + 1} of ${items.length}`
  const ended = ({ active, over }: DragEndEvent) => {
    if (over !== null && over.id !== active.id) {
      onMove(at(active.id), at(over.id))
    }
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={ended}
      accessibility={{
        // Not in the list, which holds its items only.
        container: document.body,
        screenReaderInstructions: {
          draggable: 'Space lifts it, the arrow keys move it, Space puts it down, Escape puts it back.',
        },
        announcements: {
          onDragStart: ({ active }) => `${name(active.id)} is lifted, from ${place(active.id)}.`,
          onDragOver: ({ active, over }) =>
            over === null || over.id === active.id ? undefined : `${name(active.id)} is over ${place(over.id)}.`,
          onDragEnd: ({ active, over }) =>
            over === null ? undefined : `${name(active.id)} is put down at ${place(over.id)}.`,
          onDragCancel: ({ active }) => `${name(active.id)} is back where it was.`,
        },
      }}
    >
      <SortableContext items={items.map(item => item.id)} strategy={verticalListSortingStrategy}>
        {items.map((item, i) => (
          <Place key={item.id} item={item}>
            {grip => children(item, i, grip)}
          </Place>
        ))}
      </SortableContext>
    </DndContext>
  )
}

function Place({ item, children }: { item: Item; children: (grip: ReactNode) => ReactNode }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: item.id,
  })
  const grip = (
    <Box
      as="span"
      ref={setActivatorNodeRef}
      {...attributes}
      {...listeners}
      aria-label={`Move ${item.name}`}
      data-grip
      cursor="grab"
      color="ink3"
      touchAction="none"
      display="inline-flex"
      p="0.5"
      borderRadius="sm"
    >
      <GripVertical size={14} aria-hidden="true" />
    </Box>
  )
  return (
    <Box
      ref={setNodeRef}
      as="li"
      position="relative"
      zIndex={isDragging ? 1 : undefined}
      opacity={isDragging ? 0.8 : 1}
      _motionReduce={{ transition: 'none !important' }}
      style={{
        transform: transform === null ? undefined : `translate3d(0, ${Math.round(transform.y)}px, 0)`,
        transition,
      }}
    >
      {children(grip)}
    </Box>
  )
}
