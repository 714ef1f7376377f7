import { Box } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { count, some } from '../../../shared/format'
import { FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import type { Draft } from '../api/draft'
import { usePublish } from '../api/draft'
import { figures, toFetch } from '../model/figures'

interface Props {
  draft: Draft
  onClose: () => void
  onPublished: (change: number) => void
}

interface Fields {
  reason: string
}

const SHORTEST = 3
const LONGEST = 1000

/** One deliberate act, with a reason. */
export function PublishWindow({ draft, onClose, onPublished }: Props) {
  const publish = usePublish(onPublished)
  const form = useForm<Fields>({ defaultValues: { reason: '' } })
  const { rehearsal } = draft
  return (
    <FormWindow
      heading="Publish the draft"
      width="520px"
      form={form}
      save="Publish"
      weighty
      onSubmit={({ reason }) => publish.mutateAsync({ reason, token: rehearsal?.token ?? '' })}
      onClose={onClose}
      problem={rehearsal === undefined ? draft.trouble : undefined}
    >
      {rehearsal !== undefined && (
        <Box bg="paper" borderRadius="md" py="2.5" px="3" mb="3.5">
          {some(draft.edits.length, 'edit')}, rehearsed on {some(rehearsal.devices, 'device')}:{' '}
          <b>
            {figures(rehearsal)
              .map(figure => `${count(figure.n)} ${figure.words}`)
              .join(', ')}
          </b>
          {toFetch(rehearsal) !== '' && `, ${toFetch(rehearsal)}`}.
          {rehearsal.removesPresent > 0 && (
            <Box color="trouble" mt="1">
              It is removed from {some(rehearsal.removesPresent, 'device')} that{' '}
              {rehearsal.removesPresent === 1 ? 'has' : 'have'} it now.
            </Box>
          )}
        </Box>
      )}
      <FormText<Fields>
        name="reason"
        label="Why is this changed?"
        required
        rows={3}
        placeholder="Kept with the change"
        rules={{
          validate: reason => {
            const { length } = reason.trim()
            return (length >= SHORTEST && length <= LONGEST) || `Say why, in ${SHORTEST} to ${LONGEST} characters.`
          },
        }}
      />
    </FormWindow>
  )
}
