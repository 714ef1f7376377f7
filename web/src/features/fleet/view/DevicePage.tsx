import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { fromNow, fullInstant } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { useWatchDevice } from '../../../shared/live'
import { Notice } from '../../../shared/Notice'
import { useNow } from '../../../shared/useNow'
import type { Device } from '../api/fleet'
import { useDevice } from '../api/fleet'
import { inOrder } from '../model/groups'
import { EnrolmentWindow } from './EnrolmentWindow'
import { TitleGroups } from './TitleGroups'
import { WhyPanel } from './WhyPanel'

/** What does this device get, and why, and what is it doing? */
export function DevicePage() {
  const { device: id = '' } = useParams()
  const device = useDevice(id)
  useWatchDevice(id)
  useEffect(() => {
    if (device.data !== undefined) {
      document.title = `${device.data.name} · Rivo`
    }
  }, [device.data])
  if (failure(device) !== undefined) {
    return (
      <Notice heading="This device cannot be shown">
        {sentence(device.error)} <Link to="/fleet">All devices</Link>
      </Notice>
    )
  }
  return device.data === undefined ? null : <Page device={device.data} />
}

function Page({ device }: { device: Device }) {
  const [parameters, setParameters] = useSearchParams()
  const lines = inOrder(device.lines)
  const chosen = parameters.get('title') ?? lines[0]?.title
  const choose = (title: string) => setParameters({ title }, { replace: true })
  const move = (step: number) => {
    const next = lines[lines.findIndex(line => line.title === chosen) + step]
    if (next !== undefined) {
      choose(next.title)
    }
  }
  useKeys('The device', [
    { key: 'ArrowDown', says: 'The next title', act: () => move(1) },
    { key: 'ArrowUp', says: 'The title before', act: () => move(-1) },
  ])
  return (
    <Flex direction="column" h="100%" px="18px" pt="10px" pb="16px" gap="10px">
      <Head device={device} />
      <Flex flex="1" minH="0" gap="16px">
        <Box
          flex="1"
          minW="0"
          h="100%"
          overflowY="auto"
          bg="panel"
          borderWidth="1px"
          borderColor="line"
          borderRadius="8px"
        >
          {lines.length === 0 ? (
            <Notice heading="Nothing is assigned to this device">
              No assignment reaches it, and it has reported no title of the catalogue. Choose a title in{' '}
              <Link to="/reach">Reach</Link> to assign it.
            </Notice>
          ) : (
            <TitleGroups lines={device.lines} chosen={chosen} onChoose={choose} />
          )}
        </Box>
        <WhyPanel device={device.id} title={chosen} />
      </Flex>
    </Flex>
  )
}

const FACTS = ['arch', 'ramGiB', 'os.version'] as const

function Head({ device }: { device: Device }) {
  const now = useNow()
  const facts = FACTS.flatMap(name => {
    const value = device.facts[name]
    return value === undefined ? [] : [name === 'ramGiB' ? `${value} GiB` : value]
  })
  return (
    <Box>
      <Flex
        as="nav"
        aria-label="Organisational units"
        color="ink2"
        fontSize="13px"
        gap="6px"
        wrap="wrap"
        css={{ '& a:hover': { textDecoration: 'underline' } }}
      >
        {device.path.map((part, i) => (
          <span key={part.id}>
            {i > 0 && '› '}
            <Link to={`/fleet?ou=${encodeURIComponent(part.id)}`}>{part.name}</Link>
          </span>
        ))}
      </Flex>
      <Flex align="baseline" gap="16px" mt="2px" wrap="wrap">
        <Box as="h1" fontSize="20px" fontWeight="700">
          {device.name}
        </Box>
        {device.people[0] !== undefined && (
          <Box>
            <b>{device.people[0]}</b>
            {device.people.length > 1 && (
              <Box as="span" color="ink2" title={device.people.slice(1).join(', ')}>
                {' '}
                and {device.people.length - 1} more
              </Box>
            )}
          </Box>
        )}
        <Box color="ink2">{facts.length > 0 ? facts.join(' · ') : 'has reported nothing of itself yet'}</Box>
        <Box flex="1" />
        <Seen device={device} now={now} />
      </Flex>
    </Box>
  )
}

function Seen({ device, now }: { device: Device; now: number }) {
  const [open, setOpen] = useState(false)
  return (
    <Flex align="center" gap="10px" color="ink2">
      {device.lastSeen === undefined ? (
        <Box>{device.enrolled ? 'enrolled, has never called in' : 'not enrolled'}</Box>
      ) : (
        <Box title={fullInstant(device.lastSeen)}>
          last seen <b>{fromNow(device.lastSeen, now)}</b>
          {device.enrolled && device.nextDue !== undefined && ` · next due ${dueWords(device.nextDue, now)}`}
          {!device.enrolled && ' · not enrolled any more'}
        </Box>
      )}
      <Button onClick={() => setOpen(true)}>{device.enrolled ? 'Enrolment…' : 'Enrol…'}</Button>
      <EnrolmentWindow device={device} open={open} onClose={() => setOpen(false)} />
    </Flex>
  )
}

function dueWords(nextDue: string, now: number): string {
  return Date.parse(nextDue) < now ? 'by now' : fromNow(nextDue, now)
}
