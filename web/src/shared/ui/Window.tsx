import { Box, Dialog, Flex, Portal } from '@chakra-ui/react'
import { X } from 'lucide-react'
import type { ReactNode, RefObject } from 'react'
import { useEffect, useRef, useState } from 'react'
import { useBlocker } from 'react-router'
import { Button } from './Button'

interface Props {
  open: boolean
  onClose: () => void
  heading: string
  width: string
  children: ReactNode
  foot?: ReactNode
  first?: RefObject<HTMLElement | null>
  /** Whether nothing that is typed here is meant to be kept: then it closes without asking. */
  keepsNothing?: boolean
}

/**
 * A window over the page. Escape, a click outside and the cross close it and go back to where one was; where something has been typed, they ask
 * first, and so does Back, and the browser where the page itself would be left.
 */
export function Window({ open, onClose, heading, width, children, foot, first, keepsNothing = false }: Props) {
  const typed = useRef(false)
  const [asking, setAsking] = useState(false)
  const mayLose = () => open && typed.current && !keepsNothing
  const [leaving, setLeaving] = useState<Leave | undefined>(undefined)
  const leave = () => {
    if (mayLose() && !asking) {
      setAsking(true)
    } else {
      onClose()
    }
  }
  const stay = () => {
    setAsking(false)
    leaving?.stay()
  }
  const discard = () => {
    typed.current = false
    if (leaving === undefined) {
      onClose()
    } else {
      leaving.go()
    }
  }
  return (
    <Dialog.Root
      open={open}
      onOpenChange={change => !change.open && leave()}
      onExitComplete={() => {
        typed.current = false
        setAsking(false)
      }}
      lazyMount
      unmountOnExit
      {...(first !== undefined && { initialFocusEl: () => first.current })}
    >
      {open && <Guard mayLose={mayLose} onLeave={setLeaving} />}
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content
            onInput={() => {
              typed.current = true
            }}
            bg="panel"
            color="ink"
            borderWidth="1px"
            borderColor="line"
            maxW={width}
            w="calc(100vw - 32px)"
            borderRadius="lg"
          >
            <Dialog.Header px="5" pt="4" pb="2">
              <Dialog.Title textStyle="heading">{heading}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body px="5" pb="4.5" overflow="auto" maxH="70vh">
              {children}
            </Dialog.Body>
            {(asking || leaving !== undefined) && <Leaving onStay={stay} onLeave={discard} />}
            {foot !== undefined && !asking && leaving === undefined && (
              <Dialog.Footer px="5" py="3" borderTopWidth="1px" borderColor="line">
                {foot}
              </Dialog.Footer>
            )}
            {/* Last, so that the keyboard begins with what the window asks. */}
            <Dialog.CloseTrigger
              aria-label="Close"
              position="absolute"
              top="14px"
              right="14px"
              p="1"
              color="ink2"
              cursor="pointer"
              borderRadius="md"
              _hover={{ bg: 'hover' }}
            >
              <X size={16} />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  )
}

/** A way back that waits for an answer. */
interface Leave {
  readonly go: () => void
  readonly stay: () => void
}

/**
 * Stops Back and Forward where something would be lost. Only those: whatever the window itself leads to, it leads to when it has done its
 * work. There while the window is open: a router knows one of these at a time.
 */
function Guard({ mayLose, onLeave }: { mayLose: () => boolean; onLeave: (leave: Leave | undefined) => void }) {
  const blocked = useBlocker(({ historyAction }) => historyAction === 'POP' && mayLose())
  useAskedBeforeLeaving(mayLose)
  useEffect(() => {
    onLeave(blocked.state === 'blocked' ? { go: blocked.proceed, stay: blocked.reset } : undefined)
  }, [blocked, onLeave])
  return null
}

/** The browser asks before the page is left or loaded anew while something would be lost. */
function useAskedBeforeLeaving(mayLose: () => boolean): void {
  const latest = useRef(mayLose)
  useEffect(() => {
    latest.current = mayLose
  })
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (latest.current()) {
        event.preventDefault()
      }
    }
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [])
}

function Leaving({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  return (
    <Flex
      role="alert"
      gap="2"
      align="center"
      px="5"
      py="3"
      borderTopWidth="1px"
      borderColor="line"
      bg="paper"
      borderBottomRadius="lg"
    >
      <Box flex="1">What you have entered here is not saved.</Box>
      <Button size="lg" onClick={onLeave}>
        Discard it
      </Button>
      <Button size="lg" variant="chosen" onClick={onStay} autoFocus>
        Go on editing
      </Button>
    </Flex>
  )
}
