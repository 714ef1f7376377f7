import { Box, Flex } from '@chakra-ui/react'
import { lazy, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { count, some } from '../../../shared/format'
import { oneOf } from '../../../shared/address'
import { useAddressState } from '../../../shared/useAddressState'
import { useAnnounced } from '../../../shared/ui/Announcer'
import { useKeys } from '../../../shared/keys'
import type { Draft, Part } from '../api/draft'
import { useDraft, useRedo, useUndo } from '../api/draft'
import { editWords } from '../model/edits'
import { figures, toFetch } from '../model/figures'
import { Later } from '../../../shared/ui/Later'

const LookThrough = lazy(() => import('./LookThrough').then(part => ({ default: part.LookThrough })))
const PublishWindow = lazy(() => import('./PublishWindow').then(part => ({ default: part.PublishWindow })))

/** The part of the draft that is looked through. */
const DRAFT_ADDRESS = {
  draft: oneOf<'closed' | 'edits' | Part>('closed', 'edits', 'gains', 'loses', 'removes', 'contested', 'settled'),
}

/** The draft at the foot of every page; not there while the draft is empty. */
export function DraftBar() {
  const draft = useDraft()
  const [{ draft: looking }, look] = useAddressState(DRAFT_ADDRESS)
  const [publishing, setPublishing] = useState(false)
  const [published, setPublished] = useState<number | null>(null)
  const done = (change: number) => {
    setPublishing(false)
    setPublished(change)
  }
  const full = draft.data !== undefined && draft.data.edits.length > 0
  // A draft that has just become empty stays until it is closed, so that this can be undone.
  const [open, setOpen] = useState(false)
  if (full && !open) {
    setOpen(true)
  }
  const shown = full || (open && draft.data !== undefined && (draft.data.mayUndo || draft.data.mayRedo))
  return (
    <>
      {shown && draft.data !== undefined && (
        <Bar
          draft={draft.data}
          onLook={part => look({ draft: part })}
          onPublish={() => setPublishing(true)}
          onClose={() => setOpen(false)}
        />
      )}
      {!shown && published !== null && <Published change={published} onClose={() => setPublished(null)} />}
      <Later open={looking !== 'closed' && full}>
        <LookThrough
          open={looking !== 'closed' && full}
          part={looking === 'closed' ? 'edits' : looking}
          onPart={part => look({ draft: part })}
          onClose={() => look({ draft: 'closed' }, { replace: true })}
        />
      </Later>
      <Later open={publishing}>
        {publishing && full && draft.data !== undefined && (
          <PublishWindow draft={draft.data} onClose={() => setPublishing(false)} onPublished={done} />
        )}
      </Later>
    </>
  )
}

const foot = {
  minH: '54px',
  py: '1.5',
  wrap: { base: 'wrap', lg: 'nowrap' },
  flexShrink: '0',
  align: 'center',
  px: '4.5',
  gap: '3.5',
  bg: 'bar',
  color: 'onBar',
} as const

interface BarProps {
  draft: Draft
  onLook: (part: Part | 'edits') => void
  onPublish: () => void
  onClose: () => void
}

function Bar({ draft, onLook, onPublish, onClose }: BarProps) {
  const undo = useUndo()
  const redo = useRedo()
  const last = draft.edits.at(-1)
  const words = last === undefined ? undefined : editWords(last)
  useAnnounced(spoken(draft))
  const publishable = draft.rehearsal !== undefined && draft.trouble === undefined
  useKeys('The draft', [
    { key: 'l', says: 'Look through the draft', act: () => onLook('edits') },
    { key: 'p', says: 'Publish the draft', act: () => publishable && onPublish() },
    { key: 'ctrl+z', says: 'Undo the last step of the draft', act: () => draft.mayUndo && undo.mutate() },
    { key: 'ctrl+y', says: 'Do again what was undone', act: () => draft.mayRedo && redo.mutate() },
  ])
  return (
    <Flex as="section" aria-label="Draft" {...foot}>
      <Box fontWeight="700" whiteSpace="nowrap">
        {draft.edits.length === 0 ? 'Draft, empty again' : `Draft, ${some(draft.edits.length, 'edit')}`}
      </Box>
      <Divider />
      {words !== undefined && (
        <Box truncate flexShrink="1" minW="0">
          {words.verb} <b>{words.name}</b>
          {words.where !== '' && (
            <>
              {' '}
              on <b>{words.where}</b>
            </>
          )}
        </Box>
      )}
      <Button variant="bar" size="sm" onClick={() => undo.mutate()} disabled={!draft.mayUndo} title="Ctrl Z">
        Undo
      </Button>
      {draft.mayRedo && (
        <Button variant="bar" size="sm" onClick={() => redo.mutate()} title="Ctrl Y">
          Redo
        </Button>
      )}
      <Divider />
      <Box flex={{ base: '1 0 100%', lg: '1' }} minW="0" truncate={{ base: false, lg: true }}>
        <Rehearsed draft={draft} onLook={onLook} />
      </Box>
      {last === undefined ? (
        <Button variant="bar" size="lg" onClick={onClose}>
          Close
        </Button>
      ) : (
        <>
          <Button variant="bar" size="lg" onClick={() => onLook('edits')}>
            Look through
          </Button>
          <Button variant="honey" size="lg" onClick={onPublish} disabled={!publishable}>
            Publish…
          </Button>
        </>
      )}
    </Flex>
  )
}

/** The same as the bar shows, for those who do not see it. */
function spoken(draft: Draft): string {
  const edits = draft.edits.length === 0 ? 'The draft is empty' : `Draft, ${some(draft.edits.length, 'edit')}`
  const rehearsed =
    draft.rehearsal === undefined || draft.trouble !== undefined
      ? (draft.trouble ?? '')
      : figures(draft.rehearsal)
          .map(figure => `${count(figure.n)} ${figure.words}`)
          .join(', ')
  return rehearsed === '' ? edits : `${edits}: ${rehearsed}`
}

function Rehearsed({ draft, onLook }: { draft: Draft; onLook: (part: Part) => void }) {
  if (draft.rehearsal === undefined || draft.trouble !== undefined) {
    return <>{draft.trouble}</>
  }
  const fetch = toFetch(draft.rehearsal)
  return (
    <>
      <Box as="span" color="onBar2">
        rehearsed on {count(draft.rehearsal.devices)} devices:{' '}
      </Box>
      {figures(draft.rehearsal).map((figure, i) => (
        <span key={figure.part}>
          {i > 0 && ' · '}
          <Button
            variant="bar"
            borderColor="transparent"
            size="xs"
            px="1"
            fontWeight="400"
            textStyle="body"
            onClick={() => onLook(figure.part)}
            textDecoration="underline"
            textDecorationColor="barLine"
            textUnderlineOffset="3px"
          >
            <span>
              <b>{count(figure.n)}</b> {figure.words}
            </span>
          </Button>
        </span>
      ))}
      {fetch !== '' && ` · ${fetch}`}
      {draft.cautions.length > 0 && ` · ${some(draft.cautions.length, 'thing')} to check`}
    </>
  )
}

function Divider() {
  return <Box w="1px" h="24px" bg="barLine" flexShrink="0" />
}

function Published({ change, onClose }: { change: number; onClose: () => void }) {
  useAnnounced(`Change ${count(change)} is published.`)
  return (
    <Flex {...foot}>
      <Box flex="1">
        <b>Change {count(change)} is published.</b> Devices hear of it at their next call-in.
      </Box>
      <Button variant="bar" onClick={onClose}>
        Close
      </Button>
    </Flex>
  )
}
