import { Box, Flex } from '@chakra-ui/react'
import { TriangleAlert } from 'lucide-react'
import type { ReactNode } from 'react'
import { useAnnounced } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import { useConnected } from '../../../shared/live'
import { useDirectory, useScan } from '../api/directory'

const AWAY = 'Not live: Rivo does not answer. What you see may be old; this page tries again by itself.'

/** One line under the head while the directory cannot be followed, or Rivo itself cannot be reached. */
export function DirectoryTrouble() {
  const directory = useDirectory()
  const connected = useConnected()
  const scan = useScan()
  const state = directory.data
  useAnnounced(connected ? (state === undefined || state.kind === 'following' ? undefined : state.sentence) : AWAY)
  if (!connected) {
    return <Line>{AWAY}</Line>
  }
  if (state === undefined || state.kind === 'following') {
    return null
  }
  return (
    <Line>
      {state.sentence}
      {state.kind !== 'unread' && (
        <Button onClick={() => scan.mutate(false)} loading={scan.isPending} size="xs">
          Read it now
        </Button>
      )}
      {state.kind === 'held' && (
        <Button onClick={() => scan.mutate(true)} loading={scan.isPending} size="xs">
          Agree to the removal
        </Button>
      )}
    </Line>
  )
}

function Line({ children }: { children: ReactNode }) {
  return (
    <Flex align="center" gap="2.5" px="4.5" py="1.5" bg="hatchUninstall" textStyle="compact">
      <Box color="trouble" flexShrink="0">
        <TriangleAlert size={15} aria-hidden="true" />
      </Box>
      {children}
    </Flex>
  )
}
