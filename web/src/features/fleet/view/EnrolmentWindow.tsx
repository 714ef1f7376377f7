import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { fromNow, fullInstant } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { Window } from '../../../shared/ui/Window'
import type { Device } from '../api/fleet'
import { useNewToken, useRevoke } from '../api/fleet'

interface Props {
  device: Device
  open: boolean
  onClose: () => void
}

/** How a device proves that it is the one it says: a token to enrol with, and the end of what it signs with. */
export function EnrolmentWindow({ device, open, onClose }: Props) {
  return (
    <Window open={open} onClose={onClose} heading={`Enrolment of ${device.name}`} width="560px">
      <Content device={device} />
    </Window>
  )
}

function Content({ device }: { device: Device }) {
  const token = useNewToken(device.id)
  const revoke = useRevoke(device.id)
  const [asking, setAsking] = useState(false)
  const problem = token.error ?? revoke.error
  // What was shown before has ended with the key.
  const end = () => revoke.mutate(undefined, { onSuccess: () => token.reset() })
  return (
    <Flex direction="column" gap="3.5">
      <Box color="ink2" role="status">
        {revoke.isSuccess && 'The key has been revoked. '}
        {device.enrolled
          ? 'This device is enrolled: it signs everything it says with a key of its own, and believes only what Rivo has signed for it.'
          : 'This device is not enrolled: nobody can report for it or fetch anything for it.'}
      </Box>
      <Box>
        <Box fontWeight="600">{device.enrolled ? 'Enrol it anew' : 'Enrol it'}</Box>
        <Box color="ink2" mb="2">
          Give the device a one-time token.{' '}
          {device.enrolled && 'The key it has now counts until the token has been used.'}
        </Box>
        {token.data === undefined ? (
          <Button onClick={() => token.mutate()} loading={token.isPending}>
            Make a token
          </Button>
        ) : (
          <Token text={token.data.token} validUntil={token.data.validUntil} />
        )}
      </Box>
      {device.enrolled && (
        <Box borderTopWidth="1px" borderColor="line" pt="3.5">
          <Box fontWeight="600">Revoke its key</Box>
          <Box color="ink2" mb="2">
            For a device that was stolen or is not to be trusted. Its key and every token made for it end at once; what
            is installed on it stays. It can be enrolled again with a new token.
          </Box>
          {asking ? (
            <Flex gap="2" align="center">
              <Button color="trouble" borderColor="trouble" onClick={end} loading={revoke.isPending} autoFocus>
                Revoke the key of {device.name}
              </Button>
              <Button onClick={() => setAsking(false)}>Cancel</Button>
            </Flex>
          ) : (
            <Button onClick={() => setAsking(true)}>Revoke…</Button>
          )}
        </Box>
      )}
      {problem !== null && (
        <Box role="alert" color="trouble">
          {sentence(problem)}
        </Box>
      )}
    </Flex>
  )
}

function Token({ text, validUntil }: { text: string; validUntil: string }) {
  const now = useNow()
  const [copied, setCopied] = useState(false)
  const copy = () => {
    void navigator.clipboard.writeText(text).then(() => setCopied(true))
  }
  return (
    <Box>
      <Flex gap="2" align="flex-start">
        <Box
          as="code"
          fontFamily="mono"
          bg="lagoonSoft"
          px="2"
          py="1.5"
          borderRadius="sm"
          flex="1"
          overflowWrap="anywhere"
        >
          {text}
        </Box>
        <Button onClick={copy} aria-live="polite">
          {copied ? 'Copied' : 'Copy'}
        </Button>
      </Flex>
      <Box color="ink2" mt="1.5" title={fullInstant(validUntil)}>
        Shown only now. It is good for this device, once, and ends {fromNow(validUntil, now)}.
      </Box>
    </Box>
  )
}
