import { Box, Flex } from '@chakra-ui/react'
import { TriangleAlert } from 'lucide-react'
import type { ReactNode } from 'react'
import { Button } from '../../../shared/Button'
import { useConnected } from '../../../shared/live'
import { useDirectory, useScan } from '../api/directory'

/** One line under the head while the directory cannot be followed, or Rivo itself cannot be reached. */
export function DirectoryTrouble() {
  const directory = useDirectory()
  const connected = useConnected()
  const scan = useScan()
  if (!connected) {
    return <Line>Not live: Rivo does not answer. What you see may be old; this page tries again by itself.</Line>
  }
  const state = directory.data
  if (state === undefined || state.kind === 'following') {
    return null
  }
  return (
    <Line>
      {state.sentence}
      {state.kind !== 'unread' && (
        <Button onClick={() => scan.mutate(false)} loading={scan.isPending} h="24px">
          Read it now
        </Button>
      )}
      {state.kind === 'held' && (
        <Button onClick={() => scan.mutate(true)} loading={scan.isPending} h="24px">
          Agree to the removal
        </Button>
      )}
    </Line>
  )
}

function Line({ children }: { children: ReactNode }) {
  return (
    <Flex role="status" align="center" gap="10px" px="18px" py="5px" bg="hatchUninstall" fontSize="13px">
      <Box color="trouble" flexShrink="0">
        <TriangleAlert size={15} aria-hidden="true" />
      </Box>
      {children}
    </Flex>
  )
}
