import { Box } from '@chakra-ui/react'
import { Notice } from '../../../shared/ui/Notice'
import { QueryState } from '../../../shared/ui/QueryState'
import { NoticeList, useNotices } from '../../notice'

/** What people at a device were told and asked, and what they said to it. */
export function ToldPart({ device }: { device: string }) {
  const notices = useNotices({ device })
  return (
    <QueryState query={notices} failed="What people were told cannot be shown">
      {lines =>
        lines.length === 0 ? (
          <Notice heading="Nobody was told or asked anything here in three months">
            People are told when something is installed or did not work, and are asked for restarts. Each assignment
            says under “Otherwise” how.
          </Notice>
        ) : (
          <Box px="4" py="2">
            <NoticeList lines={lines} withDevice={false} />
          </Box>
        )
      }
    </QueryState>
  )
}
