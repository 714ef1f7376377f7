import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { whole } from '../../../shared/address'
import { useAddressState } from '../../../shared/useAddressState'
import { CountedDevice } from './CountedDevice'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { Window } from '../../../shared/ui/Window'
import type { Draft, Edit, Part } from '../api/draft'
import { useClearDraft, useCounted, useDraft, useDropEdit, useKeepEdit } from '../api/draft'
import { changedSince, editWords } from '../model/edits'
import { effectWords, figures } from '../model/figures'

interface Props {
  open: boolean
  part: Part | 'edits'
  onPart: (part: Part | 'edits') => void
  onClose: () => void
}

/** The edits of the draft, and the devices behind each figure of its rehearsal. */
export function LookThrough({ open, part, onPart, onClose }: Props) {
  const draft = useDraft()
  const clear = useClearDraft()
  if (draft.data === undefined) {
    return null
  }
  const foot = (
    <Button onClick={() => clear.mutate()} loading={clear.isPending}>
      Discard the whole draft
    </Button>
  )
  return (
    <Window
      open={open}
      onClose={onClose}
      heading="What this draft would do"
      width="720px"
      foot={part === 'edits' ? foot : undefined}
    >
      <Flex gap="1.5" mb="3" wrap="wrap" role="group" aria-label="To check">
        <Button
          variant={part === 'edits' ? 'chosen' : 'plain'}
          onClick={() => onPart('edits')}
          aria-pressed={part === 'edits'}
        >
          {some(draft.data.edits.length, 'edit')}
        </Button>
        {draft.data.rehearsal !== undefined &&
          figures(draft.data.rehearsal).map(figure => (
            <Button
              key={figure.part}
              variant={part === figure.part ? 'chosen' : 'plain'}
              aria-pressed={part === figure.part}
              onClick={() => onPart(figure.part)}
            >
              {count(figure.n)} {figure.words}
            </Button>
          ))}
      </Flex>
      <Box minH="240px">
        {part === 'edits' ? <Edits draft={draft.data} onClose={onClose} /> : <Counted part={part} onClose={onClose} />}
      </Box>
    </Window>
  )
}

function Edits({ draft, onClose }: { draft: Draft; onClose: () => void }) {
  return (
    <>
      {draft.trouble !== undefined && (
        <Box color="trouble" mb="2.5">
          {draft.trouble}
        </Box>
      )}
      {draft.edits.map(edit => (
        <EditRow key={edit.id} edit={edit} draft={draft} />
      ))}
      {draft.cautions.length > 0 && <Cautions cautions={draft.cautions} onClose={onClose} />}
    </>
  )
}

function EditRow({ edit, draft }: { edit: Edit; draft: Draft }) {
  const drop = useDropEdit()
  const keep = useKeepEdit()
  const words = editWords(edit)
  const effect = draft.rehearsal?.titles.find(t => `title:${t.title}` === edit.subject)
  const theirs = changedSince(edit)
  const second = [
    words.was,
    words.choices,
    effect === undefined ? '' : `all edits of this title: ${effectWords(effect)}`,
  ].filter(part => part !== '')
  return (
    <Flex py="2" borderTopWidth="1px" borderColor="line" gap="3" align="center">
      <Box flex="1" minW="0">
        <Box>
          {words.verb} <b>{words.name}</b>
          {words.where !== '' && (
            <>
              {' '}
              on <b>{words.where}</b>
            </>
          )}
        </Box>
        <Box color="ink2" textStyle="second">
          {second.join(' · ')}
        </Box>
        {theirs !== null && (
          <Box color="trouble" textStyle="second">
            {theirs} Nothing of theirs was overwritten.
          </Box>
        )}
      </Box>
      {theirs !== null && edit.changedSince?.now !== undefined && (
        <Button onClick={() => keep.mutate(edit.id)} loading={keep.isPending}>
          Keep mine
        </Button>
      )}
      <Button onClick={() => drop.mutate(edit.id)} loading={drop.isPending}>
        {theirs === null ? 'Drop' : 'Drop mine'}
      </Button>
    </Flex>
  )
}

/** What the catalogue has to say of what would be put on. */
function Cautions({ cautions, onClose }: { cautions: Draft['cautions']; onClose: () => void }) {
  return (
    <Box as="section" aria-label="Before it is assigned" mt="3.5">
      <Box as="h3" fontWeight="700" mb="1">
        Before it is assigned
      </Box>
      {cautions.map(caution => (
        <Flex key={`${caution.title} ${caution.code}`} gap="2.5" py="1.5" borderTopWidth="1px" borderColor="line">
          <Box color="ochre" fontWeight="700" aria-hidden="true">
            !
          </Box>
          <Box>
            <Box css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
              <Link to={`/catalogue/${encodeURIComponent(caution.title)}`} onClick={onClose}>
                {caution.titleName}
              </Link>
              : {caution.sentence}
            </Box>
            <Box color="ink2" textStyle="second" overflowWrap="anywhere">
              {caution.detail}
            </Box>
          </Box>
        </Flex>
      ))}
    </Box>
  )
}

const STEP = 200
const MOST = 1_000_000
const ROWS = { rows: whole(STEP, MOST) }

function Counted({ part, onClose }: { part: Part; onClose: () => void }) {
  const [{ rows: limit }, change] = useAddressState(ROWS)
  const counted = useCounted(part, limit)
  if (counted.isError) {
    return <Box color="trouble">{sentence(counted.error)}</Box>
  }
  if (counted.data === undefined) {
    return <Box color="ink3">Counting…</Box>
  }
  const { total, devices } = counted.data
  if (total === 0) {
    return <Box color="ink2">No device.</Box>
  }
  return (
    <>
      {devices.map(device => (
        <CountedDevice key={`${device.id} ${device.title}`} device={device} onOpen={onClose} />
      ))}
      {devices.length < total && (
        <Button mt="2.5" onClick={() => change({ rows: limit + STEP })} loading={counted.isFetching}>
          Show {count(Math.min(STEP, total - devices.length))} more of {count(total)}
        </Button>
      )}
    </>
  )
}
