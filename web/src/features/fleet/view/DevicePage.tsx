import { Box, Flex } from '@chakra-ui/react'
import { Panel } from '../../../shared/ui/Panel'
import { Link, useParams } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { name, oneOf } from '../../../shared/address'
import { fromNow, fullInstant } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/ui/Notice'
import { Columns, Page } from '../../../shared/ui/Page'
import { PageHeading, usePageTitle } from '../../../shared/ui/PageHead'
import { QueryState } from '../../../shared/ui/QueryState'
import { useAddressState, useOpenWindow } from '../../../shared/useAddressState'
import { useNow } from '../../../shared/useNow'
import { Diamond } from '../../../shared/ui/Diamond'
import { Kbd } from '../../../shared/ui/Kbd'
import { Later } from '../../../shared/ui/Later'
import { Segments } from '../../../shared/ui/Segments'
import { AssignWindow } from '../../assign'
import { TitlePicker } from '../../catalogue'
import type { Device, TitleLine } from '../api/fleet'
import { useDevice } from '../api/fleet'
import { inOrder, lineOf } from '../model/groups'
import { Belonging } from './Belonging'
import { EnrolmentWindow } from './EnrolmentWindow'
import { TitleGroups } from './TitleGroups'
import { ToldPart } from './ToldPart'
import { WhyPanel } from './WhyPanel'

/** What does this device get, and why, and what is it doing? */
export function DevicePage() {
  const { device: id = '' } = useParams()
  const device = useDevice(id)
  usePageTitle(device.data?.name)
  return (
    <QueryState alone query={device} failed="This device cannot be shown" remedy={<Link to="/fleet">All devices</Link>}>
      {known => <Content device={known} />}
    </QueryState>
  )
}

const DEVICE_ADDRESS = { title: name, person: name, show: oneOf('titles', 'belonging', 'told') }

function Content({ device }: { device: Device }) {
  const [address, change] = useAddressState(DEVICE_ADDRESS)
  const lines = inOrder(device.lines)
  const chosen = address.title === undefined ? lines[0] : lineOf(lines, address.title, address.person)
  const choose = (line: Pick<TitleLine, 'title' | 'person'>) => change({ title: line.title, person: line.person })
  const move = (step: number) => {
    const next = lines[lines.findIndex(line => line === chosen) + step]
    if (next !== undefined) {
      choose(next)
    }
  }
  useKeys('The device', [
    { key: 'ArrowDown', says: 'The next title', act: () => move(1) },
    { key: 'ArrowUp', says: 'The title before', act: () => move(-1) },
  ])
  return (
    <Page>
      <Head device={device} />
      <Columns>
        <Panel data-list="" flex="1" minW="0" overflowY="auto">
          <Flex px="3" py="2" gap="3" align="center" wrap="wrap" borderBottomWidth="1px" borderColor="line">
            <Segments
              label="Shown"
              value={address.show}
              choices={[
                { value: 'titles', words: 'What it gets' },
                { value: 'belonging', words: 'What it is and belongs to' },
                { value: 'told', words: 'What people were told' },
              ]}
              onChange={show => change({ show })}
            />
            <Box flex="1" />
            <TitlePicker label="Why not…? Any title" onChoose={title => choose({ title })} width="190px" />
          </Flex>
          {address.show === 'belonging' ? (
            <Belonging device={device} />
          ) : address.show === 'told' ? (
            <ToldPart device={device.id} />
          ) : lines.length === 0 ? (
            <Notice heading="Nothing is assigned to this device">
              No assignment reaches it, and it has reported no title of the catalogue. Choose a title in{' '}
              <Link to="/reach">Reach</Link> to assign it.
            </Notice>
          ) : (
            <TitleGroups lines={device.lines} chosen={chosen} onChoose={choose} />
          )}
        </Panel>
        <WhyPanel
          device={device.id}
          title={chosen?.title ?? address.title}
          person={chosen?.person}
          expected={chosen?.expected}
        />
      </Columns>
    </Page>
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
        textStyle="compact"
        gap="1.5"
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
      <Flex align="baseline" gap="4" mt="0.5" wrap="wrap">
        <PageHeading>{device.name}</PageHeading>
        <People device={device} />
        <Box color="ink2">{facts.length > 0 ? facts.join(' · ') : 'has reported nothing of itself yet'}</Box>
        <Box flex="1" />
        <Seen device={device} now={now} />
      </Flex>
    </Box>
  )
}

/** Who uses it; whoever is signed in now comes first. */
function People({ device }: { device: Device }) {
  const people = [...device.people].sort((a, b) => Number(b.signedIn) - Number(a.signedIn))
  const [first, ...rest] = people
  if (first === undefined) {
    return null
  }
  return (
    <Box>
      <b>{first.name}</b>
      <Box as="span" color="ink2" title={rest.map(person => person.name).join(', ')}>
        {first.signedIn && ' signed in'}
        {rest.length > 0 && `${first.signedIn ? ' ·' : ''} and ${rest.length} more`}
        {device.tellsSignIns && !first.signedIn && ' · nobody signed in'}
      </Box>
    </Box>
  )
}

function Seen({ device, now }: { device: Device; now: number }) {
  const [open, setOpen] = useOpenWindow()
  useKeys('This device', [{ key: 'a', says: `Assign to ${device.name}`, act: () => setOpen('assign') }])
  return (
    <Flex align="center" gap="2.5" color="ink2">
      {device.lastSeen === undefined ? (
        <Box>{device.enrolled ? 'enrolled, has never called in' : 'not enrolled'}</Box>
      ) : (
        <Box title={fullInstant(device.lastSeen)}>
          last seen <b>{fromNow(device.lastSeen, now)}</b>
          {device.enrolled && device.nextDue !== undefined && ` · next due ${dueWords(device.nextDue, now)}`}
          {!device.enrolled && ' · not enrolled any more'}
        </Box>
      )}
      <Button variant="chosen" onClick={() => setOpen('assign')}>
        <Diamond kind="required" size={11} /> Assign… <Kbd>A</Kbd>
      </Button>
      <Button onClick={() => setOpen('enrolment')}>{device.enrolled ? 'Enrolment…' : 'Enrol…'}</Button>
      <Later open={open === 'assign'}>
        {open === 'assign' && (
          <AssignWindow
            name={device.name}
            targets={[`device:${device.id}`]}
            follows="device"
            onClose={() => setOpen(undefined)}
          />
        )}
      </Later>
      <EnrolmentWindow device={device} open={open === 'enrolment'} onClose={() => setOpen(undefined)} />
    </Flex>
  )
}

function dueWords(nextDue: string, now: number): string {
  return Date.parse(nextDue) < now ? 'by now' : fromNow(nextDue, now)
}
