import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Api } from '../../../shared/api'

interface Props {
  device: Api['CountedDevice']
  /** Told when one goes there. */
  onOpen?: () => void
}

/** One device that a figure of a rehearsal counts. */
export function CountedDevice({ device, onOpen }: Props) {
  return (
    <Flex py="1" gap="3" borderTopWidth="1px" borderColor="line">
      <Box w="150px" fontWeight="600" css={{ '& a:hover': { textDecoration: 'underline' } }}>
        <Link to={`/fleet/${encodeURIComponent(device.id)}?title=${encodeURIComponent(device.title)}`} onClick={onOpen}>
          {device.name}
        </Link>
      </Box>
      <Box flex="1" color="ink2">
        {device.ou}
      </Box>
      <Box color="ink2">{device.titleName}</Box>
    </Flex>
  )
}
