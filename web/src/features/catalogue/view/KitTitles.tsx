import { Box, Flex } from '@chakra-ui/react'
import { ArrowDown, ArrowUp } from 'lucide-react'
import type { KeyboardEvent, ReactNode } from 'react'
import { useRef } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { SortableList } from '../../../shared/ui/SortableList'

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
      window.requestAnimationFrame(() => list.current?.querySelectorAll<HTMLElement>('[data-line]')[to]?.focus())
    }
  }
  return (
    <Box as="ol" ref={list} listStyleType="none" data-list="">
      <SortableList items={titles} onMove={onMove}>
        {(title, at, grip) => (
          <Line
            title={title}
            at={at}
            last={at === titles.length - 1}
            grip={grip}
            onMove={move}
            {...(onTakeOut !== undefined && { onTakeOut })}
          />
        )}
      </SortableList>
    </Box>
  )
}

interface LineProps {
  title: Title
  at: number
  last: boolean
  grip: ReactNode
  onMove: (at: number, to: number) => void
  onTakeOut?: (id: string) => void
}

function Line({ title, at, last, grip, onMove, onTakeOut }: LineProps) {
  const pressed = (event: KeyboardEvent) => {
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault()
      onMove(at, event.key === 'ArrowUp' ? at - 1 : at + 1)
    }
  }
  return (
    <Flex
      tabIndex={0}
      role="group"
      data-line=""
      aria-label={`${at + 1}. ${title.name}; Alt and the arrow keys move it`}
      onKeyDown={pressed}
      align="center"
      gap="2"
      px="2.5"
      py="1.5"
      mb="1.5"
      borderWidth="1px"
      borderColor="line"
      borderRadius="lg"
      bg="panel"
      _focusVisible={{ outline: '2px solid', outlineColor: 'lagoon' }}
    >
      {grip}
      <Box w="4.5" color="ink2" textStyle="second" textAlign="right">
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
          <Box color="ink2" textStyle="second" truncate>
            {title.words}
          </Box>
        )}
      </Box>
      <Button
        aria-label={`Move ${title.name} up`}
        size="xs"
        px="1"
        disabled={at === 0}
        onClick={() => onMove(at, at - 1)}
      >
        <ArrowUp size={13} />
      </Button>
      <Button
        aria-label={`Move ${title.name} down`}
        size="xs"
        px="1"
        disabled={last}
        onClick={() => onMove(at, at + 1)}
      >
        <ArrowDown size={13} />
      </Button>
      {onTakeOut !== undefined && (
        <Button size="xs" aria-label={`Remove ${title.name} from the kit`} onClick={() => onTakeOut(title.id)}>
          Remove from the kit
        </Button>
      )}
    </Flex>
  )
}
