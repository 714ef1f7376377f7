import { Box, Flex } from '@chakra-ui/react'
import { Link, useParams } from 'react-router'
import { withQuery } from '../../../shared/api'
import { fromNow, fullInstant } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { intentVerb, outcomeWords } from '../../../shared/outcomes'
import { useOpenWindow } from '../../../shared/useAddressState'
import { useNow } from '../../../shared/useNow'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Kbd } from '../../../shared/ui/Kbd'
import { Later } from '../../../shared/ui/Later'
import { Columns, Page, side } from '../../../shared/ui/Page'
import { PageHeading, usePageTitle } from '../../../shared/ui/PageHead'
import { Panel, PanelHead, PanelPart } from '../../../shared/ui/Panel'
import { QueryState } from '../../../shared/ui/QueryState'
import { AssignWindow, assignAddress } from '../../assign'
import { NoticesPart } from '../../notice'
import { RequestsPart } from '../../request'
import type { Person } from '../api/audiences'
import { usePerson } from '../api/audiences'
import { BelongingGroups } from './BelongingGroups'

const links = { '& a:hover': { textDecoration: 'underline' } }

/** Somebody of the directory: where they are, what they belong to, which devices are theirs, and what follows them. */
export function PersonPage() {
  const { person: id = '' } = useParams()
  const person = usePerson(id)
  usePageTitle(person.data?.name)
  return (
    <QueryState
      alone
      query={person}
      failed="This person cannot be shown"
      remedy={<Link to="/audiences">All audiences</Link>}
    >
      {known => <Content person={known} />}
    </QueryState>
  )
}

function onDevice(device: string, one: Person['devices'][number]['titles'][number], person: string): string {
  return withQuery(`/fleet/${encodeURIComponent(device)}`, {
    title: one.title,
    person: one.own ? person : undefined,
  })
}

function Content({ person }: { person: Person }) {
  const now = useNow()
  const [open, setOpen] = useOpenWindow()
  useKeys('The person', [{ key: 'a', says: `Assign to ${person.name}`, act: () => setOpen('assign') }])
  return (
    <Page>
      <Flex gap="4" align="baseline" wrap="wrap">
        <PageHeading>{person.name}</PageHeading>
        <Box color="ink2">
          {person.account}
          {person.department !== undefined && ` · ${person.department}`}
        </Box>
        <Box color="ink2" textStyle="compact" css={links}>
          {person.path.slice(1).map((part, i) => (
            <span key={part.id}>
              {i > 0 && ' › '}
              <Link to={`/audiences/${encodeURIComponent(`ou:${part.id}`)}`}>{part.name}</Link>
            </span>
          ))}
        </Box>
        <Box flex="1" />
        <Button size="lg" variant="chosen" onClick={() => setOpen('assign')}>
          <Diamond kind="required" /> Assign… <Kbd>A</Kbd>
        </Button>
      </Flex>
      <Columns>
        <Panel flex="1" minW="0" overflowY="auto" padded aria-label="Devices">
          <PanelHead heading="Devices" aside="what each gets through this person" />
          {person.devices.length === 0 && (
            <Box color="ink2">
              No device names this person as its user, so nothing that follows them arrives anywhere.
            </Box>
          )}
          {person.devices.map(device => (
            <Box key={device.id} py="2" borderTopWidth="1px" borderColor="line">
              <Flex gap="3" align="baseline" css={links}>
                <Box fontWeight="600">
                  <Link to={`/fleet/${encodeURIComponent(device.id)}`}>{device.name}</Link>
                </Box>
                <Box color="ink2">{device.where}</Box>
                <Box flex="1" />
                {device.lastSignIn !== undefined && (
                  <Box color="ink2" textStyle="second" title={fullInstant(device.lastSignIn)}>
                    {device.signedIn ? 'signed in' : 'last signed in'} {fromNow(device.lastSignIn, now)}
                  </Box>
                )}
              </Flex>
              {device.titles.length === 0 && <Box color="ink2">Nothing follows them onto it.</Box>}
              {device.titles.map(one => (
                <Flex key={one.title} gap="2" py="0.5" align="baseline" css={links}>
                  <Diamond kind={one.outcome} size={12} />
                  <Box fontWeight="600" whiteSpace="nowrap">
                    <Link to={onDevice(device.id, one, person.id)}>{one.titleName}</Link>
                  </Box>
                  <Box color="ink2" textStyle="second">
                    {outcomeWords(one.outcome).name}
                    {one.own && ', in their profile'} · {one.sentence}
                  </Box>
                </Flex>
              ))}
            </Box>
          ))}
        </Panel>
        <Panel {...side('400px')} overflowY="auto" padded aria-label="What they belong to">
          <PanelHead
            heading="What follows them"
            aside={person.follows.length === 0 ? '' : 'onto each of their devices'}
          />
          {person.follows.length === 0 && <Box color="ink2">Nothing is assigned so that it follows this person.</Box>}
          {person.follows.map(one => (
            <Flex key={`${one.assignment} ${one.through}`} gap="2" align="center" py="0.5" css={links}>
              <Diamond kind={one.intent} size={12} />
              <Box flex="1">
                {one.subject.startsWith('title:') ? (
                  <Link to={assignAddress({ title: one.subject.slice('title:'.length), id: one.assignment })}>
                    {intentVerb(one.intent)} {one.name}
                  </Link>
                ) : (
                  one.name
                )}
              </Box>
              <Box color="ink2" textStyle="second">
                through {one.through}
              </Box>
            </Flex>
          ))}
          <PanelPart heading="Groups">
            <BelongingGroups groups={person.groups} />
          </PanelPart>
          <RequestsPart which={{ person: person.id }} without="person" />
          <NoticesPart person={person.id} />
        </Panel>
      </Columns>
      <Later open={open === 'assign'}>
        {open === 'assign' && (
          <AssignWindow
            name={person.name}
            targets={[`user:${person.id}`]}
            follows="user"
            onClose={() => setOpen(undefined)}
          />
        )}
      </Later>
    </Page>
  )
}
