import { Box, Field, Flex, Textarea } from '@chakra-ui/react'
import type { FormEvent, RefObject } from 'react'
import { useRef, useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { Window } from '../../../shared/Window'
import { useDraft, usePublish } from '../api/draft'
import { figures, toFetch } from '../model/figures'

interface Props {
  open: boolean
  onClose: () => void
  onPublished: (change: number) => void
}

/** One deliberate act, with a reason. */
export function PublishWindow({ open, onClose, onPublished }: Props) {
  const field = useRef<HTMLTextAreaElement>(null)
  return (
    <Window open={open} onClose={onClose} heading="Publish the draft" width="520px" first={field}>
      <Form field={field} onClose={onClose} onPublished={onPublished} />
    </Window>
  )
}

function Form({ field, onClose, onPublished }: Omit<Props, 'open'> & { field: RefObject<HTMLTextAreaElement | null> }) {
  const draft = useDraft()
  const publish = usePublish(onPublished)
  const [reason, setReason] = useState('')
  const rehearsal = draft.data?.rehearsal
  const edits = draft.data?.edits.length ?? 0
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (rehearsal !== undefined && !publish.isPending) {
      publish.mutate({ reason, token: rehearsal.token })
    }
  }
  return (
    <form onSubmit={submit}>
      {rehearsal !== undefined && (
        <Box bg="paper" borderRadius="6px" p="10px 12px" mb="14px">
          {some(edits, 'edit')}, rehearsed on {some(rehearsal.devices, 'device')}:{' '}
          <b>
            {figures(rehearsal)
              .map(figure => `${count(figure.n)} ${figure.words}`)
              .join(', ')}
          </b>
          {toFetch(rehearsal) !== '' && `, ${toFetch(rehearsal)}`}.
          {rehearsal.removesPresent > 0 && (
            <Box color="trouble" mt="4px">
              It is removed from {some(rehearsal.removesPresent, 'device')} that{' '}
              {rehearsal.removesPresent === 1 ? 'has' : 'have'} it now.
            </Box>
          )}
        </Box>
      )}
      <Field.Root required invalid={publish.isError}>
        <Field.Label fontWeight="600">Why is this changed?</Field.Label>
        <Textarea
          ref={field}
          value={reason}
          onChange={event => setReason(event.target.value)}
          rows={3}
          maxLength={1000}
          borderColor="line"
          placeholder="Kept with the change"
          onKeyDown={event => event.key === 'Enter' && event.ctrlKey && submit(event)}
        />
        {publish.isError && <Field.ErrorText color="trouble">{sentence(publish.error)}</Field.ErrorText>}
      </Field.Root>
      <Flex justify="flex-end" gap="8px" mt="16px">
        <Button size="lg" onClick={onClose}>
          Cancel
        </Button>
        <Button type="submit" variant="honey" size="lg" loading={publish.isPending} disabled={reason.trim().length < 3}>
          Publish
        </Button>
      </Flex>
    </form>
  )
}
