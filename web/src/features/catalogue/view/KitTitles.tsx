import { Box, Flex } from '@chakra-ui/react'
import { ArrowDown, ArrowUp } from 'lucide-react'
import type { KeyboardEvent } from 'react'
import { useRef } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/Button'
import { Grip, useDragged } from './dragging'

interface Title {
  readonly id: string
  readonly name: string
  /** A second line, where there is something to say. */
  readonly words?: string
}

interface Props {
  titles: readonly Title[]
  onMove: (at: number, to: number) => void
  onTakeOut?: (id: string) => void
}

/** The titles of a kit in their order, which is changed by dragging, by the arrows, or by Alt and the arrow keys. */
export function KitTitles({ titles, onMove, onTakeOut }: Props) {
  const list = useRef<HTMLOListElement>(null)
  const move = (at: number, to: number) => {
    if (to >= 0 && to < titles.length) {
      onMove(at, to)
      // The line that was moved keeps the keyboard.
      window.requestAnimationFrame(() => list.current?.querySelectorAll<HTMLElement>(':scope > li')[to]?.focus())
    }
  }
  return (
    <Box as="ol" ref={list} listStyleType="none">
      {titles.map((title, i) => (
        <Line
          key={title.id}
          title={title}
          at={i}
          last={i === titles.length - 1}
          onMove={move}
          {...(onTakeOut !== undefined && { onTakeOut })}
        />
      ))}
    </Box>
  )
}

function Line({
  title,
  at,
  last,
  onMove,
  onTakeOut,
}: {
  title: Title
  at: number
  last: boolean
  onMove: (at: number, to: number) => void
  onTakeOut?: (id: string) => void
}) {
  const dragging = useDragged('kit', at, onMove)
  const pressed = (event: KeyboardEvent) => {
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault()
      onMove(at, event.key === 'ArrowUp' ? at - 1 : at + 1)
    }
  }
  return (
    <Flex
      as="li"
      tabIndex={0}
      aria-label={`${at + 1}. ${title.name}; Alt and the arrow keys move it`}
      onKeyDown={pressed}
      {...dragging.place}
      align="center"
      gap="8px"
      px="10px"
      py="5px"
      mb="5px"
      borderWidth="1px"
      borderColor={dragging.over ? 'lagoon' : 'line'}
      borderRadius="7px"
      bg="panel"
      _focusVisible={{ outline: '2px solid', outlineColor: 'lagoon' }}
    >
      <Grip {...dragging.grip} />
      <Box w="18px" color="ink2" fontSize="12.3px" textAlign="right">
        {at + 1}
      </Box>
      <Box flex="1" minW="0" css={{ '& a:hover': { textDecoration: 'underline' } }}>
        <Box fontWeight="600" truncate>
          {onTakeOut === undefined ? (
            <Link to={`/catalogue/${encodeURIComponent(title.id)}`}>{title.name}</Link>
          ) : (
            title.name
          )}
        </Box>
        {title.words !== undefined && (
          <Box color="ink2" fontSize="12.3px" truncate>
            {title.words}
          </Box>
        )}
      </Box>
      <Button
        aria-label={`Move ${title.name} up`}
        h="24px"
        px="4px"
        disabled={at === 0}
        onClick={() => onMove(at, at - 1)}
      >
        <ArrowUp size={13} />
      </Button>
      <Button
        aria-label={`Move ${title.name} down`}
        h="24px"
        px="4px"
        disabled={last}
        onClick={() => onMove(at, at + 1)}
      >
        <ArrowDown size={13} />
      </Button>
      {onTakeOut !== undefined && (
        <Button h="24px" aria-label={`Remove ${title.name} from the kit`} onClick={() => onTakeOut(title.id)}>
          Remove from the kit
        </Button>
      )}
    </Flex>
  )
}
