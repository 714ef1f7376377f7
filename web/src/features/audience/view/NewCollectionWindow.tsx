import { Box } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { FormRule, FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import { usePutDocument } from '../../draft'
import { newCollectionId } from '../model/collection'

interface Props {
  /** Told what it is called, and as what assignments name it. */
  onMade: (collection: { readonly target: string; readonly name: string }) => void
  onClose: () => void
}

/** A collection made in the middle of something else. It goes into the draft, and can be written on in its own place. */
export function NewCollectionWindow({ onMade, onClose }: Props) {
  const form = useForm({ defaultValues: { name: '', rule: '' } })
  const put = usePutDocument()
  return (
    <FormWindow
      heading="New collection"
      width="560px"
      form={form}
      save="Keep in the draft"
      onClose={onClose}
      onSubmit={async ({ name, rule }) => {
        const id = newCollectionId(name)
        await put.mutateAsync({ kind: 'collection', id, revision: 0, document: { id, name, rule } })
        onMade({ target: `collection:${id}`, name })
      }}
    >
      <FormText
        name="name"
        label="Name"
        required
        rules={{ validate: value => String(value).trim() !== '' || 'Give it a name.' }}
      />
      <Box mt="3">
        <FormRule
          name="rule"
          rows={3}
          rules={{ validate: value => String(value).trim() !== '' || 'Say which devices it holds.' }}
        />
      </Box>
    </FormWindow>
  )
}
