import { Box, Flex } from '@chakra-ui/react'
import { useMutation } from '@tanstack/react-query'
import { useRef } from 'react'
import { Button } from '../../../shared/Button'
import type { Api } from '../../../shared/api'
import { send, sentence } from '../../../shared/api'
import { TitleIcon } from './TitleIcon'

/** The picture of a title: one's own, or the drawn one. */
export function IconField({ name, icon, onChange }: { name: string; icon: string; onChange: (icon: string) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const keep = useMutation({
    mutationFn: (file: File) => send<Api['KeptIcon']>('PUT', '/api/icons', file, new AbortController().signal),
    onSuccess: kept => onChange(kept.id),
  })
  return (
    <Flex align="center" gap="12px">
      <TitleIcon name={name} icon={icon} size={42} />
      <input
        ref={input}
        type="file"
        hidden
        aria-label="A picture"
        accept="image/png,image/jpeg,image/svg+xml"
        onChange={event => {
          const file = event.target.files?.[0]
          if (file !== undefined) {
            keep.mutate(file)
          }
          event.target.value = ''
        }}
      />
      <Button onClick={() => input.current?.click()} loading={keep.isPending}>
        Choose a picture
      </Button>
      {icon !== '' && <Button onClick={() => onChange('')}>Use the drawn one</Button>}
      <Box
        flex="1"
        fontSize="12.3px"
        color={keep.isError ? 'trouble' : 'ink3'}
        role={keep.isError ? 'alert' : undefined}
      >
        {keep.isError ? sentence(keep.error) : 'PNG, JPEG or SVG, up to 512 KiB'}
      </Box>
    </Flex>
  )
}
