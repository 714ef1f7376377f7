import { Box, chakra, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { NavLink, useLocation, useNavigate } from 'react-router'
import { DirectoryTrouble } from '../features/directory'
import { DraftBar } from '../features/draft'
import { SearchPalette } from '../features/search'
import { Button } from '../shared/Button'
import { Kbd } from '../shared/Kbd'
import { useKeys } from '../shared/keys'
import { Help } from '../shared/Help'
import { LiveProvider } from '../shared/live'
import { AccountMenu } from './AccountMenu'
import { Mark } from './Mark'

const PLACES = [
  { to: '/catalogue', name: 'Catalogue' },
  { to: '/reach', name: 'Reach' },
  { to: '/fleet', name: 'Fleet' },
] as const

const PlaceLink = chakra(NavLink)

/** What stands around every place: the head, and the draft at the foot. */
export function Shell({ children }: { children: ReactNode }) {
  const [searching, setSearching] = useState(false)
  const [helping, setHelping] = useState(false)
  const navigate = useNavigate()
  useKeys('Everywhere', [
    { key: 'ctrl+k', says: 'Search', act: () => setSearching(true), whileTyping: true },
    { key: '?', says: 'Keys and words', act: () => setHelping(true) },
    { key: 'g c', says: 'Go to the Catalogue', act: () => void navigate('/catalogue') },
    { key: 'g r', says: 'Go to Reach', act: () => void navigate('/reach') },
    { key: 'g f', says: 'Go to the Fleet', act: () => void navigate('/fleet') },
  ])
  return (
    <LiveProvider>
      <Flex direction="column" h="100%">
        <SkipLink />
        <Head onSearch={() => setSearching(true)} onHelp={() => setHelping(true)} />
        <DirectoryTrouble />
        <Box as="main" id="main" flex="1" minH="0" tabIndex={-1} outline="none">
          {children}
        </Box>
        <DraftBar />
      </Flex>
      <SearchPalette open={searching} onClose={() => setSearching(false)} />
      <Help open={helping} onClose={() => setHelping(false)} />
    </LiveProvider>
  )
}

function SkipLink() {
  return (
    <chakra.a
      href="#main"
      position="absolute"
      left="-999px"
      bg="panel"
      px="3"
      py="2"
      zIndex="10"
      _focus={{ left: '8px', top: '8px' }}
    >
      Skip to the content
    </chakra.a>
  )
}

function Head({ onSearch, onHelp }: { onSearch: () => void; onHelp: () => void }) {
  const { pathname } = useLocation()
  return (
    <Flex
      as="header"
      h="46px"
      flexShrink="0"
      align="center"
      px="18px"
      gap="26px"
      borderBottomWidth="1px"
      borderColor="line"
    >
      <Mark />
      <Flex as="nav" aria-label="Places" gap="22px" h="100%" flex="1">
        {PLACES.map(place => (
          <PlaceLink
            key={place.to}
            to={place.to}
            display="flex"
            alignItems="center"
            borderBottomWidth="3px"
            borderTopWidth="3px"
            borderColor="transparent"
            color="ink2"
            _hover={{ color: 'ink' }}
            {...(pathname.startsWith(place.to) && { color: 'ink', fontWeight: '700', borderBottomColor: 'lagoon' })}
          >
            {place.name}
          </PlaceLink>
        ))}
      </Flex>
      <Button
        onClick={onSearch}
        w="270px"
        h="30px"
        borderRadius="15px"
        justifyContent="space-between"
        fontWeight="400"
        fontSize="14px"
        color="ink3"
      >
        Find a device, title, OU…
        <Kbd>Ctrl K</Kbd>
      </Button>
      <AccountMenu onHelp={onHelp} />
    </Flex>
  )
}
