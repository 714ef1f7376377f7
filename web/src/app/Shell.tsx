import { Box, chakra, Flex } from '@chakra-ui/react'
import { lazy, memo, Suspense, useCallback, useState } from 'react'
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { DirectoryTrouble } from '../features/directory'
import { DraftBar } from '../features/draft'
import { Button } from '../shared/ui/Button'
import { Kbd } from '../shared/ui/Kbd'
import { useKeys } from '../shared/keys'
import { Initials } from './Initials'
import { useSession } from '../features/session'
import { Later } from '../shared/ui/Later'
import { Mark } from '../shared/ui/Mark'

const SearchPalette = lazy(() => import('../features/search').then(door => ({ default: door.SearchPalette })))
// Not needed to show a page: it comes after the page.
const AccountMenu = lazy(() => import('./AccountMenu').then(part => ({ default: part.AccountMenu })))
const Help = lazy(() => import('./Help').then(part => ({ default: part.Help })))

const PLACES = [
  { to: '/today', name: 'Today' },
  { to: '/catalogue', name: 'Catalogue' },
  { to: '/audiences', name: 'Audiences' },
  { to: '/reach', name: 'Reach' },
  { to: '/fleet', name: 'Fleet' },
] as const

const PlaceLink = chakra(NavLink)

/** What stands around every place of the administrators: the head, and the draft at the foot. */
export function Shell() {
  const [searching, setSearching] = useState(false)
  const [helping, setHelping] = useState(false)
  const navigate = useNavigate()
  const search = useCallback(() => setSearching(true), [])
  const help = useCallback(() => setHelping(true), [])
  useKeys('Everywhere', [
    { key: 'ctrl+k', says: 'Search', act: search, whileTyping: true },
    { key: '?', says: 'Keys and words', act: help },
    { key: 'g t', says: 'Go to Today', act: () => void navigate('/today') },
    { key: 'g c', says: 'Go to the Catalogue', act: () => void navigate('/catalogue') },
    { key: 'g a', says: 'Go to the Audiences', act: () => void navigate('/audiences') },
    { key: 'g r', says: 'Go to Reach', act: () => void navigate('/reach') },
    { key: 'g f', says: 'Go to the Fleet', act: () => void navigate('/fleet') },
  ])
  return (
    <>
      <Flex direction="column" h="100%">
        <SkipLink />
        <Head onSearch={search} onHelp={help} />
        <DirectoryTrouble />
        <Box as="main" id="main" flex="1" minH="0" tabIndex={-1} outline="none">
          <Outlet />
        </Box>
        <DraftBar />
      </Flex>
      <Later open={searching}>
        <SearchPalette open={searching} onClose={() => setSearching(false)} />
      </Later>
      <Later open={helping}>
        <Help open={helping} onClose={() => setHelping(false)} />
      </Later>
    </>
  )
}

function SkipLink() {
  return (
    <chakra.a
      href="#main"
      position="absolute"
      left="-999px"
      bg="panel"
      px="1"
      py="0.5"
      zIndex="10"
      _focus={{ left: '8px', top: '8px' }}
    >
      Skip to the content
    </chakra.a>
  )
}

function Head({ onSearch, onHelp }: { onSearch: () => void; onHelp: () => void }) {
  const { pathname } = useLocation()
  const session = useSession()
  return (
    <Flex
      as="header"
      h="46px"
      flexShrink="0"
      align="center"
      px="4.5"
      gap="6"
      borderBottomWidth="1px"
      borderColor="line"
    >
      <Mark />
      <Places at={PLACES.find(place => pathname.startsWith(place.to))?.to} />
      <Button
        onClick={onSearch}
        aria-label="Find a device, person, title, OU"
        w={{ base: 'auto', md: '270px' }}
        h="30px"
        borderRadius="full"
        justifyContent="space-between"
        fontWeight="400"
        textStyle="body"
        color="ink3"
      >
        <Box display={{ base: 'none', md: 'block' }}>Find a device, person, title, OU…</Box>
        <Kbd>Ctrl K</Kbd>
      </Button>
      <Suspense fallback={<Initials name={session.fullName} />}>
        <AccountMenu onHelp={onHelp} />
      </Suspense>
    </Flex>
  )
}

/** @param at the place that one is in; nothing on pages of none */
const Places = memo(function Places({ at }: { at: string | undefined }) {
  return (
    <Flex as="nav" aria-label="Places" gap="5" h="100%" flex="1">
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
          {...(place.to === at && { color: 'ink', fontWeight: '700', borderBottomColor: 'lagoon' })}
        >
          {place.name}
        </PlaceLink>
      ))}
    </Flex>
  )
})
