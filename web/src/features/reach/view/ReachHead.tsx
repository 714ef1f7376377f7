import { Box, Flex, Menu, Portal } from '@chakra-ui/react'
import { ChevronDown } from 'lucide-react'
import { Link, useNavigate } from 'react-router'
import { Button } from '../../../shared/Button'
import { withQuery } from '../../../shared/api'
import { Diamond } from '../../../shared/Diamond'
import { count } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import type { Shown } from '../../../shared/outcomes'
import { outcomeWords } from '../../../shared/outcomes'
import type { Reach } from '../api/reach'
import { useTitles } from '../api/reach'
import { occurring } from '../model/fill'
import type { ReachAddress } from '../model/useReachAddress'

/** The title one looks at, and the figures for the whole fleet. */
export function ReachHead({ reach, address }: { reach: Reach; address: ReachAddress }) {
  useKeys('Reach', [
    {
      key: 't',
      says: address.table ? 'Show the map' : 'Show as a table',
      act: () => address.showTable(!address.table),
    },
  ])
  const figures = [...new Set(['required' as const, ...occurring(reach.totals, reach.totalsAfter)])]
  return (
    <Flex align="center" gap="18px" minH="34px">
      <TitlePicker reach={reach} address={address} />
      <Button
        onClick={() => address.showTable(!address.table)}
        variant={address.table ? 'chosen' : 'plain'}
        h="26px"
        aria-pressed={address.table}
      >
        Table <Kbd>T</Kbd>
      </Button>
      <Flex flex="1" justify="flex-end" gap="2px 20px" wrap="wrap">
        {figures.map(kind => (
          <Figure key={kind} reach={reach} outcome={kind} />
        ))}
      </Flex>
    </Flex>
  )
}

/**
 * How many devices it is, with the draft; beside it how many it is now, where that is another number. A list shows what is: it opens from the
 * number that counts that.
 */
function Figure({ reach, outcome }: { reach: Reach; outcome: Shown }) {
  const now = reach.totals[outcome]
  const n = (reach.totalsAfter ?? reach.totals)[outcome]
  const faint = outcome === 'none' || n === 0
  const list = withQuery('/fleet', { title: reach.title, outcome })
  const figure = (
    <Flex align="baseline" gap="7px" color={faint ? 'ink3' : 'ink2'}>
      {outcome !== 'none' && (
        <Box alignSelf="center">
          <Diamond kind={outcome} size={13} />
        </Box>
      )}
      <Box fontSize="18px" fontWeight="700" color={faint ? 'ink3' : 'ink'}>
        {count(n)}
      </Box>
      {outcomeWords(outcome).counted}
    </Flex>
  )
  return (
    <Flex
      align="baseline"
      gap="7px"
      css={{ '& a:hover': { textDecoration: 'underline' } }}
      title={outcomeWords(outcome).sentence}
    >
      {n === now ? (
        <Link to={list}>{figure}</Link>
      ) : (
        <>
          {figure}
          <Box color="ink3">
            (<Link to={list}>{count(now)} now</Link>)
          </Box>
        </>
      )}
    </Flex>
  )
}

function TitlePicker({ reach, address }: { reach: Reach; address: ReachAddress }) {
  const titles = useTitles()
  const navigate = useNavigate()
  const go = (title: string) =>
    void navigate(
      withQuery(`/reach/${encodeURIComponent(title)}`, {
        ou: address.ou,
        in: address.zoom,
        as: address.table ? 'table' : undefined,
      }),
    )
  return (
    <Menu.Root>
      <Menu.Trigger asChild>
        <Button
          variant="text"
          color="ink"
          textDecoration="none"
          px="0"
          h="34px"
          aria-label={`${reach.titleName}: choose another title`}
        >
          <Box as="h1" fontSize="20px" fontWeight="700">
            {reach.titleName}
          </Box>
          <Box fontWeight="400" fontSize="14px" color="ink2">
            {reach.newest === undefined ? 'no release is offered' : `newest that is offered · ${reach.newest}`}
          </Box>
          <ChevronDown size={15} aria-hidden="true" />
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="panel" borderWidth="1px" borderColor="line" boxShadow="md" minW="340px" maxH="70vh" p="6px">
            {titles.data?.map(title => (
              <Menu.Item
                key={title.id}
                value={title.id}
                valueText={title.name}
                onSelect={() => go(title.id)}
                _highlighted={{ bg: 'lagoonSoft' }}
                cursor="pointer"
                borderRadius="5px"
                fontSize="14px"
              >
                <Box flex="1" fontWeight={title.id === reach.title ? '700' : '400'}>
                  {title.name}
                </Box>
                <Box color="ink3" fontSize="12.3px">
                  {title.maker}
                </Box>
              </Menu.Item>
            ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  )
}
