import { Dialog, Portal } from '@chakra-ui/react'
import { X } from 'lucide-react'
import type { ReactNode, RefObject } from 'react'

interface Props {
  open: boolean
  onClose: () => void
  heading: string
  width: string
  children: ReactNode
  foot?: ReactNode
  first?: RefObject<HTMLElement | null>
}

/** A window over the page. Escape closes it and goes back to where one was. */
export function Window({ open, onClose, heading, width, children, foot, first }: Props) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={change => !change.open && onClose()}
      lazyMount
      unmountOnExit
      {...(first !== undefined && { initialFocusEl: () => first.current })}
    >
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content
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
            {foot !== undefined && (
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
