import { chakra, Flex } from '@chakra-ui/react'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'

const Remove = chakra('button', {
  base: {
    display: 'inline-flex',
    p: '0.5',
    color: 'ink3',
    cursor: 'pointer',
    borderRadius: 'md',
    _hover: { color: 'ink' },
  },
})

interface Props {
  /** What it is, for whoever does not see it. */
  name: string
  /** Whether it takes something away. */
  less?: boolean
  children: ReactNode
  onRemove: () => void
}

/** One of the things that are chosen, with a cross that takes it out again. */
export function Chip({ name, less = false, children, onRemove }: Props) {
  return (
    <Flex
      display="inline-flex"
      align="center"
      gap="1.5"
      maxW="100%"
      minH="8"
      pl="3"
      pr="1.5"
      borderWidth="1px"
      borderStyle={less ? 'dashed' : 'solid'}
      borderColor="line"
      borderRadius="full"
      bg="panel"
      textStyle="compact"
    >
      {children}
      <Remove type="button" aria-label={`Deselect ${name}`} onClick={onRemove}>
        <X size={13} />
      </Remove>
    </Flex>
  )
}
