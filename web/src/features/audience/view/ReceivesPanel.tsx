import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { sentence } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { intentVerb, outcomeWords } from '../../../shared/outcomes'
import { Diamond } from '../../../shared/ui/Diamond'
import { side } from '../../../shared/ui/Page'
import { Panel, PanelHead, PanelPart } from '../../../shared/ui/Panel'
import { StackBar } from '../../../shared/ui/StackBar'
import { assignAddress } from '../../assign'
import type { AudienceData, Received } from '../api/audiences'
import { useReceived } from '../api/audiences'
import { CameAndWent } from './CameAndWent'

const links = { '& a': { textDecoration: 'underline', textUnderlineOffset: '2px' } }

/** The map turned round: what an audience receives, what it is assigned and excluded from, where its devices are. */
export function ReceivesPanel({ view }: { view: AudienceData }) {
  return (
    <Panel aria-label="What it receives" {...side('356px')} overflowY="auto" padded>
      <PanelHead heading="What it receives" aside={whom(view)} />
      <Titles view={view} />
      {view.excluded.length > 0 && (
        <Box color="ink2" textStyle="second" mt="1.5" css={links}>
          excluded from{' '}
          {view.excluded.map((one, i) => (
            <span key={one.assignment}>
              {i > 0 && ', '}
              <Link to={place(one.subject, one.assignment)}>{one.name}</Link>
            </span>
          ))}
        </Box>
      )}
      <Assigned view={view} />
      <WherePart view={view} />
      {(view.kind === 'group' || view.kind === 'ou') && <CameAndWent target={view.target} kind={view.kind} />}
    </Panel>
  )
}

function whom(view: AudienceData): string {
  return view.devices > 0
    ? `its ${some(view.devices, 'device')}`
    : `the devices of its ${some(view.people, 'person', 'people')}`
}

/** Where an assignment is edited; one of a kit on the kit's page. */
function place(subject: string, assignment: string): string {
  return subject.startsWith('title:')
    ? assignAddress({ title: subject.slice('title:'.length), id: assignment })
    : `/catalogue/kits/${encodeURIComponent(subject.slice('kit:'.length))}`
}

function Titles({ view }: { view: AudienceData }) {
  const received = useReceived(view.target)
  if (received.isError) {
    return <Box color="trouble">{sentence(received.error)}</Box>
  }
  if (received.data === undefined) {
    return <Box color="ink3">Working it out…</Box>
  }
  return received.data.length === 0 ? (
    <Box color="ink2">Nothing yet.</Box>
  ) : (
    received.data.map(one => <Title key={one.title} one={one} target={view.target} />)
  )
}

function Title({ one, target }: { one: Received; target: string }) {
  const [first, ...others] = one.outcomes
  const rung = one.rungs[0]
  return (
    <Flex gap="2.5" py="2" borderTopWidth="1px" borderColor="line">
      <Box pt="0.5">{first !== undefined && <Diamond kind={first.outcome} size={14} />}</Box>
      <Box flex="1" minW="0">
        <Box fontWeight="600" css={{ '& a:hover': { textDecoration: 'underline' } }}>
          <Link to={`/reach/${encodeURIComponent(one.title)}?lit=${encodeURIComponent(target)}`}>{one.titleName}</Link>
        </Box>
        <Box color="ink2" textStyle="second">
          {rung === undefined
            ? 'needed by another title, or left behind'
            : `${intentVerb(rung.intent)} · ${rung.targets}${rung.binding ? ', binding' : ''}`}
          {one.rungs.length > 1 && ` · and ${count(one.rungs.length - 1)} more`}
        </Box>
      </Box>
      <Box textAlign="right" whiteSpace="nowrap">
        {first !== undefined && (
          <Box>
            {count(first.n)} {outcomeWords(first.outcome).counted}
          </Box>
        )}
        {others.slice(0, 2).map(other => (
          <Box key={other.outcome} color="ink2" textStyle="second">
            {count(other.n)} {outcomeWords(other.outcome).counted}
          </Box>
        ))}
      </Box>
    </Flex>
  )
}

function Assigned({ view }: { view: AudienceData }) {
  return (
    <PanelPart heading="Assigned to it">
      {view.assigned.length === 0 && <Box color="ink2">Nothing by itself.</Box>}
      {view.assigned.map(one => (
        <Flex
          key={one.assignment}
          gap="2"
          py="0.5"
          align="center"
          css={{ '& a:hover': { textDecoration: 'underline' } }}
        >
          <Diamond kind={one.intent} size={12} />
          <Box flex="1" minW="0">
            <Link to={place(one.subject, one.assignment)}>
              {intentVerb(one.intent)} {one.name}
            </Link>
          </Box>
          <Box color="ink2" textStyle="second">
            {[
              one.follows === 'user' ? 'follows the person' : '',
              one.binding ? 'binding' : '',
              one.state === 'paused' ? 'paused' : '',
              one.draft ? 'draft' : '',
            ]
              .filter(word => word !== '')
              .join(' · ')}
          </Box>
        </Flex>
      ))}
    </PanelPart>
  )
}

function WherePart({ view }: { view: AudienceData }) {
  if (view.spread.length === 0) {
    return null
  }
  const most = view.spread[0]?.devices ?? 1
  return (
    <PanelPart heading={view.devices > 0 ? 'Where its devices are' : 'Where the devices of its people are'}>
      {view.spread.map(part => (
        <Flex key={part.ou} gap="3" align="center" py="0.5">
          <Box w="120px" truncate css={{ '& a:hover': { textDecoration: 'underline' } }}>
            <Link to={`/audiences/${encodeURIComponent(`ou:${part.ou}`)}`}>{part.name}</Link>
          </Box>
          <Box flex="1">
            <StackBar
              whole={most}
              words={`${count(part.devices)} devices`}
              parts={[{ id: 'n', n: part.devices, colour: 'bandRequired' }]}
            />
          </Box>
          <Box w="48px" textAlign="right">
            {count(part.devices)}
          </Box>
        </Flex>
      ))}
    </PanelPart>
  )
}
