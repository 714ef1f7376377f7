import { Box, chakra, Flex } from '@chakra-ui/react'
import { Fragment, useRef } from 'react'
import { NavLink, useNavigate } from 'react-router'
import { text } from '../../../shared/address'
import { sentence } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { useAddressState } from '../../../shared/useAddressState'
import { useSettled } from '../../../shared/useSettled'
import { Button } from '../../../shared/ui/Button'
import { Kbd } from '../../../shared/ui/Kbd'
import { side } from '../../../shared/ui/Page'
import { PageHeading } from '../../../shared/ui/PageHead'
import { Panel } from '../../../shared/ui/Panel'
import { SearchField } from '../../../shared/ui/TextField'
import type { AudienceList } from '../api/audiences'
import { useAudienceList } from '../api/audiences'

type Listed = AudienceList['kinds'][number]['audiences'][number]

const KINDS = { collection: 'Collections', group: 'Security groups', ou: 'Organisational units' } as const
const ADDRESS = { q: text }
const Row = chakra(NavLink)
const PAUSE_MS = 150

/** All audiences by kind, in one list that a few letters narrow. */
export function AudienceNav({ chosen }: { chosen: string | undefined }) {
  const [{ q }, change] = useAddressState(ADDRESS)
  const found = useAudienceList(useSettled(q, PAUSE_MS))
  const field = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  const keep = q === '' ? '' : `?q=${encodeURIComponent(q)}`
  const all = (found.data?.kinds ?? []).flatMap(kind => kind.audiences)
  const move = (step: number) => {
    const next = all[all.findIndex(one => one.target === chosen) + step]
    if (next !== undefined) {
      void navigate(`/audiences/${encodeURIComponent(next.target)}${keep}`)
    }
  }
  useKeys('Audiences', [
    { key: '/', says: 'Find an audience', act: () => field.current?.focus() },
    { key: 'n', says: 'New collection', act: () => void navigate('/audiences/new') },
    { key: 'ArrowDown', says: 'The next audience', act: () => move(1) },
    { key: 'ArrowUp', says: 'The audience before', act: () => move(-1) },
  ])
  const total = (found.data?.kinds ?? []).reduce((sum, kind) => sum + kind.total, 0)
  return (
    <Flex direction="column" gap="2.5" {...side('240px')} minH="0">
      <Flex align="baseline" gap="2.5">
        <PageHeading>Audiences</PageHeading>
        <Box color="ink2">{found.data === undefined ? '' : count(total)}</Box>
      </Flex>
      <SearchField
        ref={field}
        label="Name of a group, OU or collection"
        placeholder="Name of a group, OU…"
        value={q}
        onChange={words => change({ q: words })}
      />
      <Panel data-list="" aria-label="All audiences" flex="1" minH={{ base: '240px', lg: '0' }} overflowY="auto">
        {found.isError && (
          <Box p="3" color="trouble">
            {sentence(found.error)}
          </Box>
        )}
        {found.data?.kinds.map(kind => (
          <Fragment key={kind.kind}>
            <Flex
              px="3"
              py="1.5"
              justify="space-between"
              color="ink2"
              textStyle="second"
              fontWeight="600"
              bg="paper"
              borderBottomWidth="1px"
              borderColor="line"
            >
              <span>{KINDS[kind.kind]}</span>
              <span>{count(kind.total)}</span>
            </Flex>
            {kind.audiences.map(one => (
              <Line
                key={one.target}
                one={one}
                to={`/audiences/${encodeURIComponent(one.target)}${keep}`}
                chosen={one.target === chosen}
              />
            ))}
            {kind.total > kind.audiences.length && (
              <Box px="3" py="1.5" color="ink3" textStyle="second">
                and {count(kind.total - kind.audiences.length)} more; type to find them
              </Box>
            )}
          </Fragment>
        ))}
        {found.data !== undefined && total === 0 && (
          <Box p="3" color="ink2">
            Nothing is called that. Try fewer letters.
          </Box>
        )}
      </Panel>
      <Button alignSelf="flex-start" onClick={() => void navigate('/audiences/new')}>
        New collection… <Kbd>N</Kbd>
      </Button>
    </Flex>
  )
}

function Line({ one, to, chosen }: { one: Listed; to: string; chosen: boolean }) {
  return (
    <Row
      to={to}
      aria-current={chosen ? 'page' : undefined}
      display="block"
      px="3"
      py="1.5"
      borderBottomWidth="1px"
      borderColor="line"
      bg={chosen ? 'lagoonSoft' : undefined}
      _hover={{ bg: chosen ? 'lagoonSoft' : 'hover' }}
    >
      <Flex gap="2" align="baseline">
        <Box flex="1" minW="0" fontWeight={chosen ? '700' : '400'} overflowWrap="anywhere">
          {one.name}
          {one.draft && (
            <Box as="span" color="ink2" textStyle="second">
              {' '}
              · draft
            </Box>
          )}
        </Box>
        <Box
          color={one.devices + one.people === 0 ? 'ink3' : 'ink'}
          whiteSpace="nowrap"
          title={`${some(one.devices, 'device')}, ${some(one.people, 'person', 'people')}`}
        >
          {one.devices > 0 || one.people === 0 ? count(one.devices) : ''}
          {one.people > 0 && (
            <Box as="span" color="ink2" textStyle="second">
              {one.devices > 0 ? ' · ' : ''}
              {some(one.people, 'person', 'people')}
            </Box>
          )}
        </Box>
      </Flex>
      {(one.where !== '' || one.oddities.length > 0) && (
        <Box color="ink2" textStyle="second">
          {[one.where, ...one.oddities].filter(words => words !== '').join(' · ')}
        </Box>
      )}
    </Row>
  )
}
