import { Grid } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { idOf } from '../../../shared/format'
import { FormRule, FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import type { Mirror } from '../api/mirrors'
import { usePutMirror } from '../api/mirrors'

interface Fields {
  name: string
  address: string
  fits: string
}

/** A mirror: what it is called, where it is, and who asks it. */
export function MirrorWindow({ mirror, onClose }: { mirror: Mirror | undefined; onClose: () => void }) {
  const put = usePutMirror()
  const navigate = useNavigate()
  const form = useForm<Fields>({
    defaultValues: { name: mirror?.name ?? '', address: mirror?.address ?? '', fits: mirror?.fits ?? '' },
  })
  const save = async ({ name, address, fits }: Fields) => {
    const id = mirror?.id ?? idOf(name)
    await put.mutateAsync({
      id,
      name: name.trim(),
      address: address.trim(),
      ...(fits.trim() !== '' && { fits: fits.trim() }),
    })
    // In the place of the window, so that Back does not open it again.
    void navigate(`/mirrors/${encodeURIComponent(id)}`, { replace: true })
  }
  return (
    <FormWindow
      heading={mirror === undefined ? 'A new mirror' : `Edit ${mirror.name}`}
      form={form}
      onSubmit={save}
      onClose={onClose}
    >
      <Grid gap="2.5">
        <FormText<Fields>
          name="name"
          label="Name"
          required
          hint="Such as the site where it stands"
          rules={{ validate: name => idOf(name) !== '' || 'Give it a name with letters or digits.' }}
        />
        <FormText<Fields>
          name="address"
          label="Address"
          mono
          required
          hint="Where devices reach it: http://mirror.hartsmere.quillbrook.example:8090"
          rules={{ validate: address => address.trim() !== '' || 'Say where devices reach it.' }}
        />
        <FormRule<Fields> name="fits" hint={'By site or network: site eq "Hartsmere" or x.network sw "10.20."'} />
      </Grid>
    </FormWindow>
  )
}
