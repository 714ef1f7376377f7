import { Box, Flex } from '@chakra-ui/react'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { fromNow, fullInstant } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { Window } from '../../../shared/ui/Window'
import type { OpenSession } from '../api/session'
import { useEndSession, useSessions } from '../api/session'
import { browserName } from '../model/browserName'

/** Where one is signed in, and the way to end each of them. */
export function SessionsWindow({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Window open={open} onClose={onClose} heading="Where you are signed in" width="560px">
      <Sessions />
    </Window>
  )
}

function Sessions() {
  const sessions = useSessions()
  const end = useEndSession()
  if (failure(sessions) !== undefined) {
    return (
      <Box role="alert" color="trouble">
        {sentence(sessions.error)}
      </Box>
    )
  }
  return (
    <Box>
      <Box color="ink2" mb="2">
        A session ends after 8 hours without a request, and after 12 hours in any case. One that you do not recognise:
        end it, and change your password.
      </Box>
      <Box as="ul" listStyleType="none">
        {sessions.data?.map(session => (
          <Row
            key={session.id}
            session={session}
            onEnd={() => end.mutate(session.id)}
            ending={end.isPending && end.variables === session.id}
          />
        ))}
      </Box>
      {end.isError && (
        <Box role="alert" color="trouble" mt="2">
          {sentence(end.error)}
        </Box>
      )}
    </Box>
  )
}

function Row({ session, onEnd, ending }: { session: OpenSession; onEnd: () => void; ending: boolean }) {
  const now = useNow()
  return (
    <Flex as="li" align="center" gap="3" py="2" borderTopWidth="1px" borderColor="line">
      <Box flex="1" minW="0">
        <Box fontWeight="600" title={session.browser}>
          {browserName(session.browser)}
        </Box>
        <Box color="ink2">
          from {session.address} · signed in{' '}
          <span title={fullInstant(session.since)}>{fromNow(session.since, now)}</span> · last request{' '}
          <span title={fullInstant(session.lastSeen)}>{fromNow(session.lastSeen, now)}</span>
        </Box>
      </Box>
      {session.own ? (
        <Box color="ink2">this one</Box>
      ) : (
        <Button onClick={onEnd} loading={ending}>
          End
        </Button>
      )}
    </Flex>
  )
}
