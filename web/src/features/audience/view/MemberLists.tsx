import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { oneOf, whole } from '../../../shared/address'
import { sentence, withQuery } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { useAddressState } from '../../../shared/useAddressState'
import { Button } from '../../../shared/ui/Button'
import { Segments } from '../../../shared/ui/Segments'
import type { AudienceData } from '../api/audiences'
import { useMembers } from '../api/audiences'

const STEP = 100
const ADDRESS = { of: oneOf<'auto' | 'devices' | 'people'>('auto', 'devices', 'people'), rows: whole(STEP, 100_000) }

/** Whom an audience holds, each with how it comes to be in. */
export function MemberLists({ view, onKeep }: { view: AudienceData; onKeep: () => void }) {
  const [address, change] = useAddressState(ADDRESS)
  const of = address.of === 'auto' ? (view.devices === 0 && view.people > 0 ? 'people' : 'devices') : address.of
  const members = useMembers(view.target, of, Math.min(500, address.rows))
  return (
    <Box as="section" aria-label="Whom it holds" mt="3">
      <Flex gap="3" align="center" wrap="wrap" mb="1.5">
        {view.kind === 'collection' ? (
          <Box as="h3" fontWeight="700">
            {some(view.devices, 'device')}
          </Box>
        ) : (
          <Segments
            label="Whom it holds"
            value={of}
            choices={[
              { value: 'devices', words: some(view.devices, 'device') },
              { value: 'people', words: some(view.people, 'person', 'people') },
            ]}
            onChange={chosen => change({ of: chosen })}
          />
        )}
        <Box flex="1" />
        <Flex gap="2" textStyle="second" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
          {view.devices > 0 && view.kind !== 'collection' && (
            <Button variant="text" size="xs" textStyle="second" onClick={onKeep}>
              keep as a collection…
            </Button>
          )}
          <Box alignSelf="center">
            <a href={withQuery('/api/audience/csv', { target: view.target })} download>
              CSV
            </a>
          </Box>
        </Flex>
      </Flex>
      {members.isError && <Box color="trouble">{sentence(members.error)}</Box>}
      {members.data?.total === 0 && (
        <Box color="ink2" py="2">
          {of === 'devices' ? 'It holds no device.' : 'It holds nobody.'}
        </Box>
      )}
      <Box as="ul" listStyleType="none" data-list="">
        {members.data?.members.map(one => (
          <Flex as="li" key={one.id} gap="3" py="1.5" borderTopWidth="1px" borderColor="line" align="baseline">
            <Box w="150px" fontWeight="600" truncate css={{ '& a:hover': { textDecoration: 'underline' } }}>
              <Link to={`/${of === 'devices' ? 'fleet' : 'people'}/${encodeURIComponent(one.id)}`}>{one.name}</Link>
            </Box>
            <Box flex="1" color="ink2" minW="0" truncate title={one.where}>
              {one.where}
            </Box>
            {one.ways.length + one.unused.length > 0 && (
              <Box flex="1" color="ink2" textStyle="second" minW="0">
                {one.ways.join(' · ')}
                {one.ways.length > 0 && one.unused.length > 0 && ' · '}
                <Box as="span" color="ochre">
                  {one.unused.join(' · ')}
                </Box>
              </Box>
            )}
          </Flex>
        ))}
      </Box>
      {members.data !== undefined && members.data.members.length < members.data.total && (
        <Flex mt="2" gap="3" align="center">
          {address.rows < 500 && (
            <Button onClick={() => change({ rows: address.rows + STEP })} loading={members.isFetching}>
              Show {count(Math.min(STEP, members.data.total - members.data.members.length))} more of{' '}
              {count(members.data.total)}
            </Button>
          )}
          {address.rows >= 500 && (
            <Box color="ink2">The first 500 of {count(members.data.total)}; the CSV has all of them.</Box>
          )}
        </Flex>
      )}
    </Box>
  )
}
