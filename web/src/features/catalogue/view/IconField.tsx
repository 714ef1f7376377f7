import { Box, FileUpload, Flex } from '@chakra-ui/react'
import { useMutation } from '@tanstack/react-query'
import { Button } from '../../../shared/ui/Button'
import type { Api } from '../../../shared/api'
import { send, sentence } from '../../../shared/api'
import { TitleIcon } from '../../../shared/ui/TitleIcon'

/** The picture of a title: one's own, or the drawn one. */
export function IconField({ name, icon, onChange }: { name: string; icon: string; onChange: (icon: string) => void }) {
  const keep = useMutation({
    mutationFn: (file: File) => send<Api['KeptIcon']>('PUT', '/api/icons', file, new AbortController().signal),
    onSuccess: kept => onChange(kept.id),
  })
  return (
    <Flex align="center" gap="3">
      <TitleIcon name={name} icon={icon} size={42} />
      <FileUpload.Root
        w="auto"
        maxFiles={1}
        acceptedFiles={[]}
        accept={['image/png', 'image/jpeg', 'image/svg+xml']}
        onFileAccept={({ files }) => files[0] !== undefined && keep.mutate(files[0])}
      >
        <FileUpload.HiddenInput aria-label="A picture" />
        <FileUpload.Trigger asChild>
          <Button loading={keep.isPending}>Choose a picture</Button>
        </FileUpload.Trigger>
      </FileUpload.Root>
      {icon !== '' && <Button onClick={() => onChange('')}>Use the drawn one</Button>}
      <Box
        flex="1"
        textStyle="second"
        color={keep.isError ? 'trouble' : 'ink3'}
        role={keep.isError ? 'alert' : undefined}
      >
        {keep.isError ? sentence(keep.error) : 'PNG, JPEG or SVG, up to 512 KiB'}
      </Box>
    </Flex>
  )
}
