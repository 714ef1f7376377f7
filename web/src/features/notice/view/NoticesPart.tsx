import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { count } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import { PanelPart } from '../../../shared/ui/Panel'
import { useNotices } from '../api/notices'
import { NoticeList } from './NoticeList'

const FEW = 8

/** What a person was told and asked, and what they said to it, as a part of their page; nothing where nothing was. */
export function NoticesPart({ person }: { person: string }) {
  const notices = useNotices({ person })
  const [all, setAll] = useState(false)
  const lines = notices.data ?? []
  if (lines.length === 0) {
    return null
  }
  return (
    <PanelPart heading="Told and asked" aside={count(lines.length)}>
      <NoticeList lines={all ? lines : lines.slice(0, FEW)} withDevice />
      {!all && lines.length > FEW && (
        <Box mt="1.5">
          <Button variant="text" size="inline" onClick={() => setAll(true)}>
            {count(lines.length - FEW)} before these
          </Button>
        </Box>
      )}
    </PanelPart>
  )
}
