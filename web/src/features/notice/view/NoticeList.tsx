import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { fromNow, fullInstant } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import type { NoticeLine } from '../api/notices'

/** What was told, asked and answered; each with the device where it is not clear which. */
export function NoticeList({ lines, withDevice }: { lines: readonly NoticeLine[]; withDevice: boolean }) {
  const now = useNow()
  return (
    <Box as="ul" listStyleType="none">
      {lines.map((line, i) => (
        <Flex
          as="li"
          key={`${line.at} ${i}`}
          gap="3"
          py="1.5"
          align="baseline"
          borderBottomWidth="1px"
          borderColor="line"
          css={{ '& a': { textDecoration: 'underline' } }}
        >
          <Box flex="1" minW="0" overflowWrap="anywhere" color={line.refused ? 'trouble' : undefined}>
            {line.line}
            {withDevice && (
              <>
                {' '}
                on <Link to={`/fleet/${encodeURIComponent(line.device)}`}>{line.deviceName}</Link>
              </>
            )}
          </Box>
          <Box color="ink2" textStyle="second" whiteSpace="nowrap" title={fullInstant(line.at)}>
            {fromNow(line.at, now)}
          </Box>
        </Flex>
      ))}
    </Box>
  )
}
