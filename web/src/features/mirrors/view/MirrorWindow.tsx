import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { TextField } from '../../../shared/TextField'
import { idOf } from '../../../shared/format'
import { Window } from '../../../shared/Window'
import type { Mirror } from '../api/mirrors'
import { usePutMirror } from '../api/mirrors'

/** A mirror: what it is called, where it is, and who asks it. */
export function MirrorWindow({ mirror, onClose }: { mirror: Mirror | undefined; onClose: () => void }) {
  const put = usePutMirror()
  const navigate = useNavigate()
  const [name, setName] = useState(mirror?.name ?? '')
  const [address, setAddress] = useState(mirror?.address ?? '')
  const [fits, setFits] = useState(mirror?.fits ?? '')
  const id = mirror?.id ?? idOf(name)
  const save = () =>
    put.mutate(
      { id, name: name.trim(), address: address.trim(), ...(fits.trim() !== '' && { fits: fits.trim() }) },
      {
        onSuccess: () => {
          onClose()
          void navigate(`/mirrors/${encodeURIComponent(id)}`)
        },
      },
    )
  return (
    <Window
      open
      onClose={onClose}
      heading={mirror === undefined ? 'A new mirror' : `Edit ${mirror.name}`}
      width="560px"
      foot={
        <Flex gap="8px" align="center" w="100%">
          <Box flex="1" fontSize="13px" color="trouble" role={put.isError ? 'alert' : undefined}>
            {put.isError && sentence(put.error)}
          </Box>
          <Button size="lg" onClick={onClose}>
            Cancel
          </Button>
          <Button
            size="lg"
            variant="chosen"
            loading={put.isPending}
            disabled={id === '' || address.trim() === ''}
            onClick={save}
          >
            Save
          </Button>
        </Flex>
      }
    >
      <Grid gap="10px">
        <TextField label="Name" value={name} required hint="Such as the site where it stands" onChange={setName} />
        <TextField
          label="Address"
          mono
          value={address}
          required
          hint="Where devices reach it: http://mirror.hartsmere.quillbrook.example:8090"
          onChange={setAddress}
        />
        <TextField
          label="Devices where"
          mono
          rows={2}
          value={fits}
          hint={'A rule, by site or network: site eq "Hartsmere" or x.network sw "10.20."; empty: every device'}
          onChange={setFits}
        />
      </Grid>
    </Window>
  )
}
