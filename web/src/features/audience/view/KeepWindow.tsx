import { Box } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import { usePutDocument } from '../../draft'
import type { Collection } from '../api/audiences'
import { newCollectionId } from '../model/collection'

interface Props {
  /** What it is called at first. */
  name: string
  /** What it holds, in words. */
  holds: string
  of: Pick<Collection, 'rule' | 'include' | 'base'>
  onClose: () => void
}

/** Makes a collection of what is on the screen. It goes into the draft. */
export function KeepWindow({ name, holds, of, onClose }: Props) {
  const form = useForm({ defaultValues: { name } })
  const put = usePutDocument()
  const navigate = useNavigate()
  return (
    <FormWindow
      heading="Keep as a collection"
      width="460px"
      form={form}
      save="Keep in the draft"
      onClose={onClose}
      onSubmit={async values => {
        const id = newCollectionId(values.name)
        await put.mutateAsync({ kind: 'collection', id, revision: 0, document: { id, name: values.name, ...of } })
        void navigate(`/audiences/${encodeURIComponent(`collection:${id}`)}`)
      }}
    >
      <FormText
        name="name"
        label="Name"
        required
        rules={{ validate: value => String(value).trim() !== '' || 'Give it a name.' }}
      />
      <Box color="ink2" textStyle="second" mt="2">
        {holds}
      </Box>
    </FormWindow>
  )
}
