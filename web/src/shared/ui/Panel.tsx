import { Box, chakra, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Button } from './Button'

/** A surface on the page. With `padded` it holds text, without it holds rows that reach its edges. */
export const Panel = chakra('section', {
  base: { bg: 'panel', borderWidth: '1px', borderColor: 'line', borderRadius: 'lg', minW: '0' },
  variants: {
    padded: { true: { py: '3', px: '4' } },
    /** Its parts stand below each other and share its height. */
    column: { true: { display: 'flex', flexDirection: 'column' } },
  },
})

interface PanelHeadProps {
  heading: ReactNode
  /** What stands at the right, smaller. */
  aside?: ReactNode
}

/** The first line of a panel. */
export function PanelHead({ heading, aside }: PanelHeadProps) {
  return (
    <Flex align="baseline" justify="space-between" gap="2" mb="1.5">
      <Box as="h2" fontWeight="700">
        {heading}
      </Box>
      <Box color="ink2" textStyle="second">
        {aside}
      </Box>
    </Flex>
  )
}

interface PanelPartProps {
  heading: string
  aside?: ReactNode
  onEdit?: () => void
  children: ReactNode
}

/** A part of a panel, below a line and with a heading of its own. */
export function PanelPart({ heading, aside, onEdit, children }: PanelPartProps) {
  return (
    <Box borderTopWidth="1px" borderColor="line" mt="2.5" pt="2">
      <Flex align="baseline" gap="2" mb="1">
        <Box as="h3" fontWeight="700">
          {heading}
        </Box>
        {onEdit !== undefined && (
          <Button variant="text" size="xs" textStyle="second" onClick={onEdit} aria-label={`Edit: ${heading}`}>
            edit
          </Button>
        )}
        <Box flex="1" />
        {aside !== undefined && (
          <Box color="ink2" textStyle="second">
            {aside}
          </Box>
        )}
      </Flex>
      {children}
    </Box>
  )
}
