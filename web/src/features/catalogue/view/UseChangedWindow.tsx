import { Box } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import { useUseChanged } from '../api/rights'

interface Fields {
  why: string
}

/** Why a file that was changed after it was signed shall be used all the same. */
export function UseChangedWindow({ title, sha256, onClose }: { title: string; sha256: string; onClose: () => void }) {
  const use = useUseChanged(title)
  const form = useForm<Fields>({ defaultValues: { why: '' } })
  const save = async ({ why }: Fields) => {
    await use.mutateAsync({ sha256, why })
    onClose()
  }
  return (
    <FormWindow
      heading="Use a file that was changed after it was signed"
      save="Use it"
      form={form}
      onSubmit={save}
      onClose={onClose}
    >
      <Box mb="2.5">
        Whoever changed it is not known, and it would run as the system on every device that gets it. Where it can be
        fetched anew from its maker, do that instead.
      </Box>
      <FormText<Fields>
        name="why"
        label="Why it shall be used"
        required
        hint="Kept in the journal, in your name"
        rules={{ validate: why => why.trim() !== '' || 'Say why: whoever asks later reads that.' }}
      />
    </FormWindow>
  )
}
