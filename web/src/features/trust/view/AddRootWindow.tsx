import { Box, FileUpload, Flex, Grid } from '@chakra-ui/react'
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
  const [tooLarge, setTooLarge] = useState(false)
  const save = async ({ text }: Fields) => {
    await add.mutateAsync(file === undefined ? { text } : { bytes: base64(new Uint8Array(await file.arrayBuffer())) })
    onClose()
  }
  return (
    <FormWindow heading="Trust a root" save="Trust it" form={form} onSubmit={save} onClose={onClose}>
      <Grid gap="2.5">
        <Box color="ink2" textStyle="compact">
          Whoever holds its private key can name any signer. Compare its SHA-256 with what its owner publishes.
        </Box>
        <Flex align="center" gap="3">
          <FileUpload.Root
            w="auto"
            maxFiles={1}
            maxFileSize={LARGEST}
            acceptedFiles={[]}
            onFileAccept={({ files }) => setFile(files[0])}
            onFileReject={({ files }) => setTooLarge(files.length > 0)}
          >
            <FileUpload.HiddenInput aria-label="A certificate or key" />
            <FileUpload.Trigger asChild>
              <Button onClick={() => setTooLarge(false)}>Choose a file</Button>
            </FileUpload.Trigger>
          </FileUpload.Root>
          {file !== undefined && (
            <>
              <Box flex="1" minW="0" truncate>
                {file.name}
              </Box>
              <Button onClick={() => setFile(undefined)}>Paste its text instead</Button>
            </>
          )}
          {tooLarge && (
            <Box color="trouble" textStyle="second" role="alert">
              A certificate or key has at most 1 MiB.
            </Box>
          )}
        </Flex>
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
