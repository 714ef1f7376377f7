import { Box } from '@chakra-ui/react'
import { GripVertical } from 'lucide-react'
import type { DragEvent } from 'react'
import { useState } from 'react'

/** What a place in an ordered list and its grip need, so that what is dragged by its grip can be dropped on a place. */
export function useDragged(list: string, at: number, onMove: (at: number, to: number) => void) {
  const [over, setOver] = useState(false)
  const type = `application/x-rivo-${list}`
  return {
    over,
    place: {
      onDragOver: (event: DragEvent) => {
        if (event.dataTransfer.types.includes(type)) {
          event.preventDefault()
          setOver(true)
        }
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        setOver(false)
        const from = event.dataTransfer.getData(type)
        if (from !== '' && Number(from) !== at) {
          event.preventDefault()
          onMove(Number(from), at)
        }
      },
    },
    grip: {
      draggable: true,
      onDragStart: (event: DragEvent) => {
        event.dataTransfer.setData(type, String(at))
        event.dataTransfer.effectAllowed = 'move'
      },
    },
  }
}

/** By this something is dragged; the arrows beside it do the same for the keyboard. */
export function Grip(grip: ReturnType<typeof useDragged>['grip']) {
  return (
    <Box {...grip} cursor="grab" color="ink3" px="2px" title="Drag to another place" data-grip aria-hidden="true">
      <GripVertical size={14} />
    </Box>
  )
}
