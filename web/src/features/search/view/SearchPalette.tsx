import { Box, Flex, Input } from '@chakra-ui/react'
import type { KeyboardEvent, RefObject } from 'react'
import { useEffect, useRef, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { some } from '../../../shared/format'
import { Kbd } from '../../../shared/ui/Kbd'
import { Window } from '../../../shared/ui/Window'
import type { Hit } from '../api/search'
import { useSearch } from '../api/search'

const KINDS = {
  title: 'Titles',
  kit: 'Kits',
  ou: 'OUs',
  group: 'Security groups',
  collection: 'Collections',
  device: 'Devices',
  person: 'People',
} as const

/** One field that finds everything; the arrows choose, Enter goes there. */
export function SearchPalette({ open, onClose }: { open: boolean; onClose: () => void }) {
  const field = useRef<HTMLInputElement>(null)
  return (
    <Window open={open} onClose={onClose} heading="Find" width="560px" first={field} keepsNothing>
      <Palette field={field} onClose={onClose} />
    </Window>
  )
}

function Palette({ field, onClose }: { field: RefObject<HTMLInputElement | null>; onClose: () => void }) {
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState(0)
  const found = useSearch(words)
  const hits = found.data?.hits ?? []
  const go = useGo(onClose)
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  const pressed = (event: KeyboardEvent) => {
    const last = hits.length - 1
    const hit = hits[chosen]
    if (event.key === 'ArrowDown') {
      setChosen(Math.min(last, chosen + 1))
    } else if (event.key === 'ArrowUp') {
      setChosen(Math.max(0, chosen - 1))
    } else if (event.key === 'Enter' && hit !== undefined) {
      go(hit)
    } else {
      return
    }
    event.preventDefault()
  }
  return (
    <Box onKeyDown={pressed}>
      <Input
        ref={field}
        value={words}
        onChange={event => {
          setWords(event.target.value)
          setChosen(0)
        }}
        placeholder="A few letters of a device, a person, a title, an OU, a group or a collection"
        aria-label="Find a device, a person, a title or an audience"
        role="combobox"
        aria-expanded
        aria-controls="found"
        {...(hits.length > 0 && { 'aria-activedescendant': `found-${chosen}` })}
        borderColor="line"
        h="38px"
      />
      <Box ref={list} id="found" role="listbox" aria-label="Found" mt="2.5" minH="300px" maxH="46vh" overflowY="auto">
        {hits.map((hit, i) => (
          <Line
            key={`${hit.kind} ${hit.id}`}
            hit={hit}
            id={`found-${i}`}
            chosen={i === chosen}
            first={hits[i - 1]?.kind !== hit.kind}
            onGo={() => go(hit)}
          />
        ))}
        {found.data !== undefined && hits.length === 0 && (
          <Box color="ink2" p="2.5">
            Nothing is called that. Try fewer letters, or another part of the name.
          </Box>
        )}
      </Box>
      {found.data !== undefined && (
        <Flex mt="2" color="ink3" textStyle="second" justify="space-between">
          <span>
            {some(found.data.titles, 'title')}, {some(found.data.kits, 'kit')}, {some(found.data.ous, 'OU')},{' '}
            {some(found.data.groups, 'group')}, {some(found.data.collections, 'collection')},{' '}
            {some(found.data.devices, 'device')}, {some(found.data.people, 'person', 'people')}
          </span>
          <span>
            <Kbd>↑</Kbd> <Kbd>↓</Kbd> choose <Kbd>Enter</Kbd> go there
          </span>
        </Flex>
      )}
    </Box>
  )
}

/** Where a hit leads. In the catalogue a title opens there; an OU keeps the title that one is looking at. */
function useGo(onClose: () => void): (hit: Hit) => void {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  return hit => {
    onClose()
    switch (hit.kind) {
      case 'title':
        void navigate(`${pathname.startsWith('/catalogue') ? '/catalogue' : '/reach'}/${encodeURIComponent(hit.id)}`)
        return
      case 'kit':
        void navigate(`/catalogue/kits/${encodeURIComponent(hit.id)}`)
        return
      case 'ou':
        void navigate(`${pathname.startsWith('/reach/') ? pathname : '/reach'}?ou=${encodeURIComponent(hit.id)}`)
        return
      case 'group':
      case 'collection':
        void navigate(`/audiences/${encodeURIComponent(`${hit.kind}:${hit.id}`)}`)
        return
      case 'person':
        void navigate(`/people/${encodeURIComponent(hit.id)}`)
        return
      case 'device':
        void navigate(`/fleet/${encodeURIComponent(hit.id)}`)
        return
    }
  }
}

interface LineProps {
  hit: Hit
  id: string
  chosen: boolean
  first: boolean
  onGo: () => void
}

function Line({ hit, id, chosen, first, onGo }: LineProps) {
  return (
    <>
      {first && (
        <Box role="presentation" color="ink3" textStyle="second" px="2.5" pt="2" pb="0.5">
          {KINDS[hit.kind]}
        </Box>
      )}
      <Flex
        id={id}
        role="option"
        aria-selected={chosen}
        onClick={onGo}
        px="2.5"
        py="1.5"
        gap="2.5"
        borderRadius="md"
        cursor="pointer"
        bg={chosen ? 'lagoonSoft' : undefined}
        _hover={{ bg: 'hover' }}
      >
        <Box fontWeight="600" whiteSpace="nowrap">
          {hit.name}
        </Box>
        {hit.kind !== 'title' && hit.kind !== 'kit' && (
          <Box color="ink3" truncate>
            {hit.second}
          </Box>
        )}
      </Flex>
    </>
  )
}
