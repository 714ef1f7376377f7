import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { count } from '../../../shared/format'
import type { TitlePageData } from '../api/catalogue'
import type { Editing } from '../model/useEdit'
import type { TitleAddress } from '../model/useTitleAddress'
import { ByHandWindow } from './ByHandWindow'
import { DropZone } from './DropZone'
import { OfferWindow } from './OfferWindow'

interface Props {
  page: TitlePageData
  address: TitleAddress
  editing: Editing
}

/** The releases from the newest down, older ones at hand. */
export function ReleaseRail({ page, address, editing }: Props) {
  const [changing, setChanging] = useState(false)
  const [byHand, setByHand] = useState(false)
  const chosen = page.record.releases.find(r => r.version === address.version)
  return (
    <Box as="section" aria-label="Releases">
      <Box as="h2" fontWeight="700" mb="8px">
        Releases
      </Box>
      <Box as="ol" listStyleType="none" position="relative">
        <Box position="absolute" left="14px" top="14px" bottom="14px" w="1px" bg="line" aria-hidden="true" />
        {page.releases.map(standing => (
          <Release
            key={standing.version}
            page={page}
            version={standing.version}
            chosen={standing.version === address.version}
            onChoose={() => address.set({ release: standing.version, variant: '' })}
          />
        ))}
      </Box>
      {chosen !== undefined && (
        <Button w="100%" mt="6px" variant={chosen.offered ? 'plain' : 'chosen'} onClick={() => setChanging(true)}>
          {chosen.offered ? `Withdraw ${chosen.version}…` : `Offer ${chosen.version}…`}
        </Button>
      )}
      <Box mt="10px">
        <DropZone title={page.record.id} words="Drop an installer here to make a release" />
      </Box>
      <Button variant="text" h="24px" px="0" mt="4px" fontSize="12.3px" onClick={() => setByHand(true)}>
        or write one without a file
      </Button>
      {byHand && (
        <ByHandWindow title={{ record: page.record, revision: page.revision }} onClose={() => setByHand(false)} />
      )}
      {changing && chosen !== undefined && (
        <OfferWindow page={page} release={chosen} editing={editing} onClose={() => setChanging(false)} />
      )}
    </Box>
  )
}

const Choice = chakra('button')

function Release({
  page,
  version,
  chosen,
  onChoose,
}: {
  page: TitlePageData
  version: string
  chosen: boolean
  onChoose: () => void
}) {
  const release = page.record.releases.find(r => r.version === version)
  const devices = page.present.find(p => p.version === version)?.devices ?? 0
  const offered = release?.offered === true
  const where = devices === 0 ? 'on no device' : `on ${count(devices)} ${devices === 1 ? 'device' : 'devices'}`
  const note = release?.note ?? ''
  return (
    <Box as="li">
      <Choice
        type="button"
        onClick={onChoose}
        aria-pressed={chosen}
        w="100%"
        textAlign="left"
        cursor="pointer"
        borderRadius="6px"
        px="8px"
        py="6px"
        bg={chosen ? 'lagoonSoft' : 'transparent'}
        _hover={{ bg: chosen ? 'lagoonSoft' : 'hover' }}
      >
        <Flex gap="11px">
          <Box
            mt="4px"
            w="13px"
            h="13px"
            flexShrink="0"
            borderRadius="50%"
            borderWidth="2px"
            borderColor={offered ? 'lagoon' : 'ink3'}
            bg={chosen ? (offered ? 'lagoon' : 'ink3') : 'paper'}
            position="relative"
            aria-hidden="true"
          />
          <Box minW="0">
            <Box fontWeight="600" overflowWrap="anywhere">
              {version}
            </Box>
            <Box color="ink2" fontSize="12.3px">
              {offered ? 'offered' : note === '' ? 'withdrawn' : note} · {where}
            </Box>
          </Box>
        </Flex>
      </Choice>
    </Box>
  )
}
