import { Box } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
import type { ReleaseRecord, TitlePageData } from '../api/catalogue'
import { address, useEffects } from '../api/catalogue'
import { withRelease } from '../model/record'
import type { Edit, Editing } from '../state/useEdit'
import { EffectList } from './EffectList'
import { TextField } from '../../../shared/ui/TextField'

interface Props {
  page: TitlePageData
  release: ReleaseRecord
  editing: Editing
  onClose: () => void
}

/** Offering or withdrawing a release changes what devices get: it is rehearsed on the whole fleet first. */
export function OfferWindow({ page, release, editing, onClose }: Props) {
  const [why, setWhy] = useState('')
  const offered = !release.offered
  const edit: Edit = record =>
    withRelease(record, release.version, r => ({ ...r, offered, note: offered ? '' : `withdrawn: ${why.trim()}` }))
  const change = useMemo(
    () => ({
      record: withRelease(page.record, release.version, r => ({ ...r, offered })),
      revision: page.revision,
    }),
    [page, release.version, offered],
  )
  const effects = useEffects(address(change.record.id), JSON.stringify(change))
  const verb = offered ? 'Offer' : 'Withdraw'
  return (
    <Window
      open
      onClose={onClose}
      heading={`${verb} ${page.record.name} ${release.version}`}
      width="560px"
      foot={
        <WindowFoot trouble={editing.refusal} onCancel={onClose}>
          <Button
            size="lg"
            variant="honey"
            loading={editing.pending}
            disabled={why.trim().length < 3 || effects.data === undefined}
            onClick={() => editing.save(edit, onClose, { why })}
          >
            {verb}
          </Button>
        </WindowFoot>
      }
    >
      <Box bg="paper" borderRadius="md" py="2.5" px="3" mb="3.5">
        {effects.isError ? (
          <Box color="trouble">{sentence(effects.error)}</Box>
        ) : effects.data === undefined ? (
          'Rehearsing on the whole fleet…'
        ) : (
          <EffectList effects={effects.data} />
        )}
      </Box>
      <TextField label="Why?" rows={2} value={why} required onChange={setWhy} />
    </Window>
  )
}
