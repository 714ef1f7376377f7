import { Grid } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import type { RequestRow } from '../api/requests'
import { useAnswer } from '../api/requests'
import { endOfDay } from '../model/words'

interface Fields {
  words: string
  until: string
}

interface Props {
  row: RequestRow
  /** Whether it is agreed to, for a time, or refused. */
  agreed: boolean
  onClose: () => void
}

/** What is said to whoever asked, and until when they may have it. */
export function AnswerWindow({ row, agreed, onClose }: Props) {
  const answer = useAnswer()
  const form = useForm<Fields>({ defaultValues: { words: '', until: '' } })
  const send = async ({ words, until }: Fields) => {
    const end = agreed ? endOfDay(until) : undefined
    await answer.mutateAsync({ id: row.id, agreed, words: words.trim(), ...(end !== undefined && { until: end }) })
    onClose()
  }
  return (
    <FormWindow
      heading={`${agreed ? 'Agree to' : 'Refuse'} ${row.titleName} for ${row.byName}`}
      form={form}
      onSubmit={send}
      onClose={onClose}
      save={agreed ? 'Agree' : 'Refuse'}
      note={
        agreed
          ? `It is installed on ${row.deviceName}, and removed after that day.`
          : `${row.byName} reads this on the shelf, and may ask again.`
      }
    >
      <Grid gap="2.5">
        {agreed && (
          <FormText<Fields>
            name="until"
            type="date"
            label="Until the end of"
            required
            rules={{ validate: day => endOfDay(day) !== undefined || 'Choose a day.' }}
          />
        )}
        <FormText<Fields>
          name="words"
          label={agreed ? 'Words to them' : 'Why not'}
          rows={2}
          required={!agreed}
          rules={{
            validate: words => agreed || words.trim() !== '' || 'Say why not: whoever asked reads that.',
            maxLength: { value: 500, message: 'Say it in at most 500 characters.' },
          }}
        />
      </Grid>
    </FormWindow>
  )
}
