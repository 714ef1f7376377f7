import { Box } from '@chakra-ui/react'
import type { ComponentProps } from 'react'
import { lazy, Suspense } from 'react'
import { DROP_LOOK } from './dropLook'

const DropZone = lazy(() => import('./DropZone').then(part => ({ default: part.DropZone })))

/** Where an installer is dropped. What that takes is fetched when the page is there; until then its place is held, so that nothing below moves. */
export function DropPlace(props: ComponentProps<typeof DropZone>) {
  return (
    <Suspense
      fallback={
        <Box {...DROP_LOOK}>
          {props.words}
          <Box h="6" />
        </Box>
      }
    >
      <DropZone {...props} />
    </Suspense>
  )
}
