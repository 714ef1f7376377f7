import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Api } from '../../../shared/api'

/** The groups that hold a device or a person, each with the chain by which it does. */
export function BelongingGroups({ groups }: { groups: readonly Api['BelongingGroup'][] }) {
  return groups.length === 0 ? (
    <Box color="ink2">In no group.</Box>
  ) : (
    groups.map(group => (
      <Flex
        key={group.target}
        gap="2"
        py="0.5"
        align="baseline"
        wrap="wrap"
        css={{ '& a:hover': { textDecoration: 'underline' } }}
      >
        <Box fontWeight="600">
          <Link to={`/audiences/${encodeURIComponent(group.target)}`}>{group.name}</Link>
        </Box>
        <Box color="ink2" textStyle="second">
          {group.ways
            .map(way => (way.length === 1 ? 'listed there' : `through ${way.slice(1).join(' › ')}`))
            .join(' · ')}
        </Box>
      </Flex>
    ))
  )
}
