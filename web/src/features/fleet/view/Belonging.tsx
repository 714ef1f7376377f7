import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { sentence } from '../../../shared/api'
import { count, fromNow, fullInstant, some } from '../../../shared/format'
import { hasWords } from '../../../shared/text'
import { SearchField } from '../../../shared/ui/TextField'
import { useNow } from '../../../shared/useNow'
import { BelongingGroups } from '../../audience'
import type { Device } from '../api/fleet'
import { useBelonging } from '../api/fleet'

const links = { '& a:hover': { textDecoration: 'underline' } }
const SHOWN = 200

/** What a device is and belongs to: its groups with their chains, collections, people, facts and software. */
export function Belonging({ device }: { device: Device }) {
  const belonging = useBelonging(device.id, true)
  const [words, setWords] = useState('')
  if (belonging.isError) {
    return (
      <Box p="3" color="trouble">
        {sentence(belonging.error)}
      </Box>
    )
  }
  const known = belonging.data
  const facts = Object.entries(device.facts).filter(([name, value]) => hasWords(words, name, value))
  const software = (known?.software ?? []).filter(one => hasWords(words, one.name, one.publisher))
  return (
    <Box px="4" py="3">
      <Part heading="People">
        {known?.people.length === 0 && (
          <Box color="ink2">The directory names nobody as its owner, and nobody of the directory has signed in.</Box>
        )}
        {!device.tellsSignIns && device.enrolled && (
          <Box color="ink2">It does not tell who signs in: titles for each person are not installed here.</Box>
        )}
        {known?.people.map(person => (
          <Flex key={person.id} gap="2" css={links}>
            <Link to={`/people/${encodeURIComponent(person.id)}`}>
              <b>{person.name}</b>
            </Link>
            <Box color="ink2">{person.account}</Box>
            <SignedIn person={device.people.find(one => one.id === person.id)} />
          </Flex>
        ))}
      </Part>
      <Part heading="Groups">{known !== undefined && <BelongingGroups groups={known.groups} />}</Part>
      <Part heading="Collections">
        {known?.collections.length === 0 && <Box color="ink2">In no collection.</Box>}
        {known?.collections.map(one => (
          <Box key={one.target} css={links}>
            <Link to={`/audiences/${encodeURIComponent(one.target)}`}>
              <b>{one.name}</b>
            </Link>
          </Box>
        ))}
      </Part>
      <Part heading="Facts and software">
        <SearchField
          label="Narrow facts and software"
          placeholder="Name of a fact or of software"
          value={words}
          onChange={setWords}
          maxW="300px"
        />
        {facts.length + software.length === 0 && <Box color="ink2">Nothing reported is called that.</Box>}
        {facts.map(([name, value]) => (
          <Flex key={name} gap="3" py="0.5" borderTopWidth="1px" borderColor="line">
            <Box w="200px" textStyle="code" overflowWrap="anywhere">
              {name}
            </Box>
            <Box flex="1" overflowWrap="anywhere">
              {value}
            </Box>
          </Flex>
        ))}
        {software.slice(0, SHOWN).map((one, i) => (
          <Flex key={`${i} ${one.name}`} gap="3" py="0.5" borderTopWidth="1px" borderColor="line">
            <Box w="200px" fontWeight="600" overflowWrap="anywhere">
              {one.name}
            </Box>
            <Box flex="1">{one.version ?? 'version unknown'}</Box>
            <Box color="ink2">{one.publisher}</Box>
          </Flex>
        ))}
        {software.length > SHOWN && (
          <Box color="ink2">
            The first {count(SHOWN)} of {some(software.length, 'entry', 'entries')}; narrow them above.
          </Box>
        )}
      </Part>
    </Box>
  )
}

function SignedIn({ person }: { person: Device['people'][number] | undefined }) {
  const now = useNow()
  if (person?.lastSignIn === undefined) {
    return null
  }
  return (
    <Box color="ink2" title={fullInstant(person.lastSignIn)}>
      {person.signedIn ? 'signed in' : 'last signed in'} {fromNow(person.lastSignIn, now)}
    </Box>
  )
}

function Part({ heading, children }: { heading: string; children: React.ReactNode }) {
  return (
    <Box as="section" aria-label={heading} mb="3.5">
      <Box as="h3" fontWeight="700" mb="1">
        {heading}
      </Box>
      {children}
    </Box>
  )
}
