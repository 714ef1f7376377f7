import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { count, some } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import type { Draft, Part } from '../api/draft'
import { useDraft, useRedo, useUndo } from '../api/draft'
import { editWords } from '../model/edits'
import { figures, toFetch } from '../model/figures'
import { LookThrough } from './LookThrough'
import { PublishWindow } from './PublishWindow'

/** The draft at the foot of every page; not there while the draft is empty. */
export function DraftBar() {
  const draft = useDraft()
  const [looking, setLooking] = useState<Part | 'edits' | null>(null)
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
          onLook={setLooking}
          onPublish={() => setPublishing(true)}
          onClose={() => setOpen(false)}
        />
      )}
      {!shown && published !== null && <Published change={published} onClose={() => setPublished(null)} />}
      <LookThrough
        open={looking !== null && full}
        part={looking ?? 'edits'}
        onPart={setLooking}
        onClose={() => setLooking(null)}
      />
      <PublishWindow open={publishing && full} onClose={() => setPublishing(false)} onPublished={done} />
    </>
  )
}

const foot = {
  h: '54px',
  flexShrink: '0',
  align: 'center',
  px: '18px',
  gap: '14px',
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
      <Button variant="bar" h="26px" onClick={() => undo.mutate()} disabled={!draft.mayUndo} title="Ctrl Z">
        Undo
      </Button>
      {draft.mayRedo && (
        <Button variant="bar" h="26px" onClick={() => redo.mutate()} title="Ctrl Y">
          Redo
        </Button>
      )}
      <Divider />
      <Box flex="1" minW="0" truncate role="status">
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
            h="24px"
            px="3px"
            fontWeight="400"
            fontSize="14px"
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
  return (
    <Flex role="status" {...foot}>
      <Box flex="1">
        <b>Change {count(change)} is published.</b> Devices hear of it at their next call-in.
      </Box>
      <Button variant="bar" onClick={onClose}>
        Close
      </Button>
    </Flex>
  )
}
