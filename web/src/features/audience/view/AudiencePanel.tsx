import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { sentence } from '../../../shared/api'
import { holdsWords } from '../model/kinds'
import { useKeys } from '../../../shared/keys'
import { useOpenWindow } from '../../../shared/useAddressState'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Kbd } from '../../../shared/ui/Kbd'
import { Later } from '../../../shared/ui/Later'
import { Panel } from '../../../shared/ui/Panel'
import { AssignWindow } from '../../assign'
import { usePutDocument, useRetireDocument } from '../../draft'
import type { AudienceData } from '../api/audiences'
import { GroupChain } from './GroupChain'
import { MembershipQuestion } from './MembershipQuestion'
import { MemberLists } from './MemberLists'
import { KeepWindow } from './later'

const KINDS = {
  'all-devices': 'everyone',
  'all-users': 'everyone',
  ou: 'organisational unit',
  group: 'security group',
  collection: 'collection',
  device: 'device',
  user: 'person',
} as const

/** An OU or a group: whom it holds, and through which chain. */
export function AudiencePanel({ view }: { view: AudienceData }) {
  const [open, setOpen] = useOpenWindow()
  const follows = view.devices === 0 && view.people > 0 ? 'user' : 'device'
  useKeys('The audience', [{ key: 'a', says: `Assign to ${view.name}`, act: () => setOpen('assign') }])
  return (
    <Panel flex="1" minW="0" overflowY="auto" padded aria-label={view.name}>
      <Flex gap="2" align="flex-start" wrap="wrap">
        <Box flex="1" minW="200px">
          <Box as="h2" textStyle="title" overflowWrap="anywhere">
            {view.name}
          </Box>
          <Box color="ink2" textStyle="second" overflowWrap="anywhere">
            {KINDS[view.kind]}
            {view.path.length > 2 &&
              ` · ${view.path
                .slice(1, -1)
                .map(part => part.name)
                .join(' › ')}`}
            {view.dn !== undefined && (
              <>
                {' · '}
                <Box as="span" textStyle="code">
                  {view.dn}
                </Box>
              </>
            )}
          </Box>
          <Box mt="1">
            {holdsWords(view.devices, view.people)}
            {view.oddities.length > 0 && (
              <Box as="span" color="ochre">
                {' · '}
                {view.oddities.join(' · ')}
              </Box>
            )}
          </Box>
        </Box>
        {view.kind === 'ou' && view.path.length > 1 && !view.gone && <FenceButton view={view} />}
        {!view.gone && (
          <Button size="lg" variant="chosen" onClick={() => setOpen('assign')}>
            <Diamond kind="required" /> Assign… <Kbd>A</Kbd>
          </Button>
        )}
      </Flex>
      {view.makeup !== undefined && <GroupChain view={view} makeup={view.makeup} />}
      {view.namedBy.length > 0 && (
        <Box color="ink2" textStyle="second" mt="2" css={{ '& a': { textDecoration: 'underline' } }}>
          named by{' '}
          {view.namedBy.map((one, i) => (
            <span key={one.target}>
              {i > 0 && ', '}
              <Link to={`/audiences/${encodeURIComponent(one.target)}`}>{one.name}</Link>
            </span>
          ))}
        </Box>
      )}
      <MembershipQuestion view={view} />
      <MemberLists view={view} onKeep={() => setOpen('keep')} />
      <Later open={open === 'assign'}>
        {open === 'assign' && (
          <AssignWindow name={view.name} targets={[view.target]} follows={follows} onClose={() => setOpen(undefined)} />
        )}
      </Later>
      <Later open={open === 'keep'}>
        {open === 'keep' && (
          <KeepWindow
            name={`Devices of ${view.name}`}
            holds={
              view.kind === 'ou'
                ? 'The devices in this OU and below, as they come and go.'
                : 'The devices of this group, as they come and go.'
            }
            of={
              view.kind === 'ou'
                ? { rule: `ou eq ${JSON.stringify(view.dn ?? '')}` }
                : { rule: `group eq ${JSON.stringify(view.name)}` }
            }
            onClose={() => setOpen(undefined)}
          />
        )}
      </Later>
    </Panel>
  )
}

/** Raises a fence around the OU, or takes it down; with the draft. */
function FenceButton({ view }: { view: AudienceData }) {
  const put = usePutDocument()
  const retire = useRetireDocument()
  const id = view.target.slice('ou:'.length)
  const trouble = put.error ?? retire.error
  return (
    <Box>
      <Button
        size="lg"
        loading={put.isPending || retire.isPending}
        title="From outside, only binding assignments cross a fence"
        onClick={() =>
          view.fenced
            ? retire.mutate({ kind: 'fence', id, revision: view.fenceRevision ?? 0 })
            : put.mutate({ kind: 'fence', id, revision: view.fenceRevision ?? 0, document: { id } })
        }
      >
        {view.fenced ? 'Take the fence down' : 'Raise a fence'}
      </Button>
      {trouble !== null && (
        <Box role="alert" color="trouble" textStyle="second" maxW="260px">
          {sentence(trouble)}
        </Box>
      )}
    </Box>
  )
}
