import { Box, Dialog, Flex, Portal } from '@chakra-ui/react'
import { X } from 'lucide-react'
import type { ReactNode, RefObject } from 'react'
import { useRef, useState } from 'react'
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
 * A window over the page. Escape, a click outside and the cross close it and go back to where one was; where something has been typed,
 * they ask first.
 */
export function Window({ open, onClose, heading, width, children, foot, first, keepsNothing = false }: Props) {
  const typed = useRef(false)
  const [asking, setAsking] = useState(false)
  const leave = () => {
    if (typed.current && !keepsNothing && !asking) {
      setAsking(true)
    } else {
      onClose()
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
            borderRadius="9px"
          >
            <Dialog.Header px="20px" pt="16px" pb="8px">
              <Dialog.Title fontSize="17px" fontWeight="700">
                {heading}
              </Dialog.Title>
            </Dialog.Header>
            <Dialog.Body px="20px" pb="18px" overflow="auto" maxH="70vh">
              {children}
            </Dialog.Body>
            {asking && <Leaving onStay={() => setAsking(false)} onLeave={onClose} />}
            {foot !== undefined && !asking && (
              <Dialog.Footer px="20px" py="12px" borderTopWidth="1px" borderColor="line">
                {foot}
              </Dialog.Footer>
            )}
            {/* Last, so that the keyboard begins with what the window asks. */}
            <Dialog.CloseTrigger
              aria-label="Close"
              position="absolute"
              top="14px"
              right="14px"
              p="4px"
              color="ink2"
              cursor="pointer"
              borderRadius="5px"
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

function Leaving({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  return (
    <Flex
      role="alert"
      gap="8px"
      align="center"
      px="20px"
      py="12px"
      borderTopWidth="1px"
      borderColor="line"
      bg="paper"
      borderBottomRadius="9px"
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
