import { Box, chakra, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { count } from '../../../shared/format'
import { holdsWords } from '../model/kinds'
import type { AudienceData } from '../api/audiences'

type Makeup = NonNullable<AudienceData['makeup']>

interface Node {
  readonly key: string
  readonly name: string
  readonly second: string
  readonly target: string | undefined
  readonly weight: number
  readonly circle: boolean
}

const NODE_H = 44
const GAP = 14
const NODE_W = 176
const BAND_W = 150
const Curve = chakra('path')
const Card = chakra(Link)

/** Through what a group holds whom it holds: what it lists itself, and the groups in it, each of which one can go to. */
export function GroupChain({ view, makeup }: { view: AudienceData; makeup: Makeup }) {
  const nodes = nodesOf(makeup)
  const height = Math.max(1, nodes.length) * (NODE_H + GAP)
  const middle = height / 2
  const most = Math.max(1, ...nodes.map(node => node.weight))
  return (
    <Box mt="3">
      <Flex as="section" aria-label="Through what it holds them" align="stretch" overflowX="auto">
        <Box position="relative" w={`${NODE_W}px`} flexShrink="0" style={{ height }}>
          {nodes.map((node, i) => (
            <Box key={node.key} position="absolute" left="0" right="0" style={{ top: i * (NODE_H + GAP) + GAP / 2 }}>
              <NodeCard node={node} />
            </Box>
          ))}
        </Box>
        <svg width={BAND_W} height={height} aria-hidden="true" style={{ flexShrink: 0 }}>
          {nodes.map((node, i) => {
            const y = i * (NODE_H + GAP) + GAP / 2 + NODE_H / 2
            return (
              <Curve
                key={node.key}
                d={`M0 ${y} C ${BAND_W / 2} ${y}, ${BAND_W / 2} ${middle}, ${BAND_W} ${middle}`}
                fill="none"
                stroke={node.circle ? 'uninstall' : 'lagoonLine'}
                strokeWidth={2 + (12 * node.weight) / most}
                strokeDasharray={node.circle ? '5 4' : undefined}
                opacity="0.7"
              />
            )
          })}
        </svg>
        <Flex align="center" style={{ height }}>
          <Box
            borderWidth="1px"
            borderColor="lagoonLine"
            bg="lagoonSoft"
            borderRadius="md"
            px="3"
            py="1.5"
            w={`${NODE_W}px`}
          >
            <Box fontWeight="700" truncate>
              {view.name}
            </Box>
            <Box color="ink2" textStyle="second">
              {holdsWords(view.devices, view.people)}
            </Box>
          </Box>
        </Flex>
      </Flex>
      {makeup.circle.length > 0 && (
        <Box color="trouble" textStyle="second" mt="1">
          {view.name} and {makeup.circle.map(one => one.name).join(', ')} hold each other: all of them hold the same.
        </Box>
      )}
      {makeup.holders.length > 0 && (
        <Box color="ink2" textStyle="second" mt="1" css={{ '& a': { textDecoration: 'underline' } }}>
          in{' '}
          {makeup.holders.map((one, i) => (
            <span key={one.target}>
              {i > 0 && ', '}
              <Link to={`/audiences/${encodeURIComponent(one.target)}`}>{one.name}</Link>
            </span>
          ))}
        </Box>
      )}
    </Box>
  )
}

function NodeCard({ node }: { node: Node }) {
  const look = {
    display: 'block',
    borderWidth: '1px',
    borderColor: 'line',
    borderRadius: 'md',
    bg: 'panel',
    px: '2.5',
    py: '0.5',
    h: `${NODE_H}px`,
  } as const
  const words = (
    <>
      <Box fontWeight="600" truncate>
        {node.name}
      </Box>
      <Box color="ink2" textStyle="second" truncate>
        {node.second}
      </Box>
    </>
  )
  return node.target === undefined ? (
    <Box {...look}>{words}</Box>
  ) : (
    <Card to={`/audiences/${encodeURIComponent(node.target)}`} {...look} _hover={{ bg: 'hover' }}>
      {words}
    </Card>
  )
}

function nodesOf(makeup: Makeup): readonly Node[] {
  const parts = makeup.parts.map(part => ({
    key: part.target,
    name: part.name,
    second: `${holdsWords(part.devices, part.people)}${part.inCircle ? ', a circle' : part.alsoListed > 0 ? `, ${count(part.alsoListed)} also listed here` : ''}`,
    target: part.target,
    weight: part.devices + part.people,
    circle: part.inCircle,
  }))
  const listed = makeup.listedDevices + makeup.listedPeople
  return listed === 0 && parts.length > 0
    ? parts
    : [
        ...parts,
        {
          key: 'listed',
          name: 'listed here',
          second: holdsWords(makeup.listedDevices, makeup.listedPeople),
          target: undefined,
          weight: listed,
          circle: false,
        },
      ]
}
