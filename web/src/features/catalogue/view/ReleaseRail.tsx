import { Box, chakra, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { TitlePageData } from '../api/catalogue'
import { whereWords } from '../model/scope'
import type { Editing } from '../state/useEdit'
import type { TitleAddress } from '../state/useTitleAddress'
import { DropPlace } from './DropPlace'

const ByHandWindow = lazy(() => import('./ByHandWindow').then(part => ({ default: part.ByHandWindow })))
const OfferWindow = lazy(() => import('./OfferWindow').then(part => ({ default: part.OfferWindow })))

interface Props {
  page: TitlePageData
  address: TitleAddress
  editing: Editing
}

/** The releases from the newest down, older ones at hand. */
export function ReleaseRail({ page, address, editing }: Props) {
  const { window: open, open: setOpen } = address
  const chosen = page.record.releases.find(r => r.version === address.version)
  return (
    <Box as="section" aria-label="Releases">
      <Box as="h2" fontWeight="700" mb="2">
        Releases
      </Box>
      <Box as="ol" listStyleType="none" position="relative" data-list="">
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
        <Button
          w="100%"
          mt="1.5"
          variant={chosen.offered ? 'plain' : 'chosen'}
          onClick={() => setOpen(chosen.offered ? 'withdraw' : 'offer')}
        >
          {chosen.offered ? `Withdraw ${chosen.version}…` : `Offer ${chosen.version}…`}
        </Button>
      )}
      <Box mt="2.5">
        <DropPlace title={page.record.id} words="Drop an installer here to make a release" />
      </Box>
      <Button variant="text" size="xs" px="0" mt="1" textStyle="second" onClick={() => setOpen('by-hand')}>
        or write one without a file
      </Button>
      {open === 'by-hand' && (
        <Suspense fallback={null}>
          <ByHandWindow title={{ record: page.record, revision: page.revision }} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {chosen !== undefined && open === (chosen.offered ? 'withdraw' : 'offer') && (
        <Suspense fallback={null}>
          <OfferWindow page={page} release={chosen} editing={editing} onClose={() => setOpen(undefined)} />
        </Suspense>
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
  const where = whereWords(page.record.scope, devices)
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
        borderRadius="md"
        px="2"
        py="1.5"
        bg={chosen ? 'lagoonSoft' : 'transparent'}
        _hover={{ bg: chosen ? 'lagoonSoft' : 'hover' }}
      >
        <Flex gap="2.5">
          <Box
            mt="1"
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
            <Box color="ink2" textStyle="second">
              {offered ? 'offered' : note === '' ? 'withdrawn' : note} · {where}
            </Box>
          </Box>
        </Flex>
      </Choice>
    </Box>
  )
}
