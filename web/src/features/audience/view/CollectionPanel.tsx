import { Box, Flex } from '@chakra-ui/react'
import { lazy, useState } from 'react'
import { useNavigate } from 'react-router'
import { isRefusal, sentence } from '../../../shared/api'
import { useKeys } from '../../../shared/keys'
import { useOpenWindow } from '../../../shared/useAddressState'
import { useSettled } from '../../../shared/useSettled'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Kbd } from '../../../shared/ui/Kbd'
import { Later } from '../../../shared/ui/Later'
import { Panel } from '../../../shared/ui/Panel'
import { TextField } from '../../../shared/ui/TextField'
import { AssignWindow } from '../../assign'
import { usePutDocument, useRetireDocument } from '../../draft'
import { RuleEditor, useTriedRule } from '../../rule'
import type { AudienceData } from '../api/audiences'
import { newCollectionId } from '../model/collection'
import { useCollection } from '../state/useCollection'
import { ByHandPart } from './ByHandPart'
import { CollectionAside } from './CollectionAside'
import { CollectionFoot } from './CollectionFoot'
import { CollectionHead } from './CollectionHead'
import { MemberLists } from './MemberLists'

const HostsWindow = lazy(() => import('./HostsWindow').then(part => ({ default: part.HostsWindow })))

const PAUSE_MS = 80

/** A collection: its rule as clauses and as text, who is in it, and what a change of it would let in and out. */
export function CollectionPanel({ view }: { view: AudienceData | undefined }) {
  const { current, isEdited, change, forget, revision } = useCollection(view)
  const [names, setNames] = useState<Readonly<Record<string, string>>>({})
  const [open, setOpen] = useOpenWindow()
  const navigate = useNavigate()
  const put = usePutDocument()
  const retire = useRetireDocument()
  const written = useSettled(
    JSON.stringify({
      rule: current.rule ?? '',
      collection: current.id === '' ? 'a new one' : current.id,
      ...(current.base !== undefined && { base: current.base }),
      include: current.include ?? [],
      exclude: current.exclude ?? [],
    }),
    PAUSE_MS,
  )
  const trial = useTriedRule(JSON.parse(written))
  const tried = trial.data?.tried
  const keep = () => {
    const named = {
      ...current,
      name: current.name?.trim() ?? '',
      id: current.id === '' ? newCollectionId(current.name ?? '') : current.id,
    }
    put.mutate(
      { kind: 'collection', id: named.id, revision, document: named },
      {
        onSuccess: () => {
          forget()
          void navigate(`/audiences/${encodeURIComponent(`collection:${named.id}`)}`)
        },
      },
    )
  }
  useKeys('The collection', [
    ...(view === undefined ? [] : [{ key: 'm', says: `Assign to ${view.name}`, act: () => setOpen('assign') }]),
  ])
  const refused = put.error ?? retire.error
  const nameless = (current.name ?? '').trim() === ''
  return (
    <>
      <Panel flex="1" minW="0" column overflow="hidden" aria-label={view?.name ?? 'New collection'}>
        <Box flex="1" minH="0" overflowY="auto" px="4.5" py="3">
          <Flex gap="3" align="flex-end" wrap="wrap">
            <Box flex="1" minW="200px">
              <TextField
                label="Name"
                value={current.name ?? ''}
                onChange={name => change({ name })}
                placeholder="Lab PCs without the viewer"
              />
            </Box>
            {view !== undefined && (
              <Button size="lg" variant="chosen" onClick={() => setOpen('assign')}>
                <Diamond kind="required" /> Assign… <Kbd>M</Kbd>
              </Button>
            )}
          </Flex>
          <CollectionHead
            view={view}
            current={current}
            names={names}
            onChange={change}
            onNamed={named => setNames({ ...names, ...named })}
          />
          <Box mt="3">
            <RuleEditor
              rule={current.rule ?? ''}
              tried={tried}
              triedText={trial.data?.written.rule ?? ''}
              onChange={rule => change({ rule: rule === '' ? undefined : rule })}
            />
          </Box>
          <ByHandPart current={current} names={names} onChange={change} onPaste={() => setOpen('hosts')} />
          {view !== undefined && <MemberLists view={view} onKeep={() => undefined} />}
        </Box>
        <CollectionFoot
          trouble={
            refused === null
              ? nameless && isEdited
                ? 'Give it a name.'
                : undefined
              : isRefusal(refused) && refused.problems[0] !== undefined
                ? refused.problems[0].sentence
                : sentence(refused)
          }
          edited={isEdited}
          nameless={nameless}
          busy={put.isPending}
          onKeep={keep}
          onCancel={() => {
            forget()
            put.reset()
            if (view === undefined) {
              void navigate('/audiences')
            }
          }}
          onDelete={
            view === undefined
              ? undefined
              : () =>
                  retire.mutate(
                    { kind: 'collection', id: current.id, revision },
                    { onSuccess: () => void navigate('/audiences') },
                  )
          }
        />
      </Panel>
      <CollectionAside view={view} tried={tried} />
      <Later open={open === 'hosts'}>
        {open === 'hosts' && (
          <HostsWindow
            heading="Paste host names"
            onClose={() => setOpen(undefined)}
            onFound={found => {
              setNames({ ...names, ...Object.fromEntries(found.map(one => [one.id, one.name])) })
              change({ include: [...new Set([...(current.include ?? []), ...found.map(one => one.id)])] })
              setOpen(undefined)
            }}
          />
        )}
      </Later>
      <Later open={open === 'assign'}>
        {open === 'assign' && view !== undefined && (
          <AssignWindow name={view.name} targets={[view.target]} follows="device" onClose={() => setOpen(undefined)} />
        )}
      </Later>
    </>
  )
}
