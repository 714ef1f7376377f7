import { Box, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { base64 } from '../model/base64'
import { Button } from '../../../shared/ui/Button'
import { FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import { useAddRoot } from '../api/roots'

interface Fields {
  text: string
}

const LARGEST = 1 << 20

/** A certificate or key that is trusted from now on: pasted, or from a file. */
export function AddRootWindow({ onClose }: { onClose: () => void }) {
  const add = useAddRoot()
  const form = useForm<Fields>({ defaultValues: { text: '' } })
  const [file, setFile] = useState<File>()
  const save = async ({ text }: Fields) => {
    await add.mutateAsync(file === undefined ? { text } : { bytes: base64(new Uint8Array(await file.arrayBuffer())) })
    onClose()
  }
  const tooLarge = file !== undefined && file.size > LARGEST
  return (
    <FormWindow heading="Trust a root" form={form} onSubmit={save} onClose={onClose}>
      <Grid gap="2.5">
        <Box color="ink2" textStyle="compact">
          Whoever holds its private key can name any signer. Compare its SHA-256 with what its owner publishes.
        </Box>
        <Box>
          <label>
            <Box as="span" fontWeight="600" textStyle="compact" display="block" mb="1">
              A file
            </Box>
            <input
              type="file"
              accept=".pem,.crt,.cer,.der,.asc,.gpg,.pgp"
              onChange={event => setFile(event.target.files?.[0])}
            />
          </label>
          {tooLarge && (
            <Box color="madder" role="alert">
              A certificate or key has at most 1 MiB.
            </Box>
          )}
          {file !== undefined && (
            <Button variant="text" size="xs" px="0" onClick={() => setFile(undefined)}>
              Paste it instead
            </Button>
          )}
        </Box>
        {file === undefined && (
          <FormText<Fields>
            name="text"
            label="Or its text"
            rows={8}
            mono
            hint="From -----BEGIN CERTIFICATE----- or -----BEGIN PGP PUBLIC KEY BLOCK----- on"
            rules={{
              validate: text => text.trim() !== '' || 'Paste a certificate or an OpenPGP key, or choose a file.',
            }}
          />
        )}
      </Grid>
    </FormWindow>
  )
}
