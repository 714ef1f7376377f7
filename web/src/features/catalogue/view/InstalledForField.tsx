import { Box, Flex } from '@chakra-ui/react'
import { Segments } from '../../../shared/ui/Segments'
import type { TitleRecord } from '../api/catalogue'

const SAYS: Record<TitleRecord['scope'], string> = {
  device: 'Once for everybody who uses the device.',
  user: 'In the profile of each person, while they are signed in: it waits for their next sign-in.',
}

/** For whom a title is installed. */
export function InstalledForField({
  scope,
  onChange,
}: {
  scope: TitleRecord['scope']
  onChange: (scope: TitleRecord['scope']) => void
}) {
  return (
    <Box textAlign="left">
      <Box fontWeight="600" textStyle="compact" mb="1.5">
        Installed for
      </Box>
      <Flex gap="3" align="center" wrap="wrap">
        <Segments
          label="Installed for"
          value={scope}
          choices={[
            { value: 'device', words: 'The device' },
            { value: 'user', words: 'Each person' },
          ]}
          onChange={onChange}
        />
        <Box color="ink2" textStyle="second" flex="1" minW="48">
          {SAYS[scope]}
        </Box>
      </Flex>
    </Box>
  )
}
