import { Box, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { KeyboardEvent } from 'react'
import { useEffect, useMemo, useRef } from 'react'
import { Link } from 'react-router'
import { withQuery } from '../../../shared/api'
import { Diamond } from '../../../shared/Diamond'
import { count } from '../../../shared/format'
import type { Shown } from '../../../shared/outcomes'
import { intentVerb, outcomeWords } from '../../../shared/outcomes'
import type { OuReach } from '../api/reach'
import { occurring } from '../model/fill'
import type { OuNode } from '../model/tree'

interface Props {
  title: string
  tree: OuNode
  selected: string
  onSelect: (ou: string) => void
}

const ROW = 30
const columns = (outcomes: number) => `1fr 58px 92px repeat(${outcomes}, 84px)`

/** The same content as the map, line by line. */
export function ReachTable({ title, tree, selected, onSelect }: Props) {
  const rows = useMemo(() => inOrder(tree), [tree])
  const shown = occurring(tree.ou.counts, tree.ou.after)
  const frame = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
  })
  const at = rows.findIndex(row => row.id === selected)
  const scrollTo = useRef(virtual.scrollToIndex)
  useEffect(() => {
    scrollTo.current = virtual.scrollToIndex
  })
  useEffect(() => {
    if (at >= 0) {
      scrollTo.current(at)
    }
  }, [at])
  const pressed = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    const next = rows[at + step]
    if (step !== 0 && next !== undefined) {
      onSelect(next.id)
      event.preventDefault()
    }
  }
  return (
    <Flex
      direction="column"
      h="100%"
      role="treegrid"
      aria-label="Organisational units and what they receive"
      aria-rowcount={rows.length + 1}
      tabIndex={0}
      onKeyDown={pressed}
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      overflow="hidden"
    >
      <Heads shown={shown} />
      <Box ref={frame} flex="1" overflowY="auto" role="rowgroup">
        <Box position="relative" role="presentation" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(item => {
            const ou = rows[item.index]
            return (
              ou !== undefined && (
                <Row
                  key={ou.id}
                  ou={ou}
                  shown={shown}
                  title={title}
                  index={item.index}
                  top={item.start}
                  selected={ou.id === selected}
                  onSelect={onSelect}
                />
              )
            )
          })}
        </Box>
      </Box>
    </Flex>
  )
}

function inOrder(node: OuNode): OuReach[] {
  return [node.ou, ...node.children.flatMap(inOrder)]
}

function Heads({ shown }: { shown: readonly Shown[] }) {
  const right = { textAlign: 'right', role: 'columnheader' } as const
  return (
    <Box role="rowgroup">
      <Box
        role="row"
        aria-rowindex={1}
        display="grid"
        gridTemplateColumns={columns(shown.length)}
        gap="8px"
        px="12px"
        py="6px"
        color="ink3"
        fontSize="12.3px"
        borderBottomWidth="1px"
        borderColor="line"
      >
        <Box role="columnheader">Organisational unit</Box>
        <Box {...right}>devices</Box>
        <Box role="columnheader">assigned here</Box>
        {shown.map(kind => (
          <Box key={kind} {...right}>
            {outcomeWords(kind).counted}
          </Box>
        ))}
      </Box>
    </Box>
  )
}

interface RowProps {
  ou: OuReach
  shown: readonly Shown[]
  title: string
  index: number
  top: number
  selected: boolean
  onSelect: (ou: string) => void
}

function Row({ ou, shown, title, index, top, selected, onSelect }: RowProps) {
  const counts = ou.after ?? ou.counts
  return (
    <Box
      role="row"
      aria-level={ou.depth + 1}
      aria-rowindex={index + 2}
      aria-selected={selected}
      onClick={() => onSelect(ou.id)}
      position="absolute"
      left="0"
      right="0"
      h={`${ROW}px`}
      display="grid"
      gridTemplateColumns={columns(shown.length)}
      alignItems="center"
      gap="8px"
      px="12px"
      cursor="pointer"
      borderBottomWidth="1px"
      borderColor="line"
      bg={selected ? 'lagoonSoft' : undefined}
      _hover={{ bg: 'hover' }}
      css={{ '& a:hover': { textDecoration: 'underline' } }}
      style={{ top }}
    >
      <Box role="gridcell" truncate fontWeight="600" style={{ paddingLeft: ou.depth * 16 }}>
        {ou.name}
        {ou.fenced && (
          <Box as="span" color="ink3" fontWeight="400">
            {' '}
            · fenced
          </Box>
        )}
      </Box>
      <Box role="gridcell" textAlign="right">
        {count(ou.devices)}
      </Box>
      <Flex role="gridcell" gap="8px">
        {ou.here.map(here => (
          <Flex key={here.assignment} align="center" gap="4px" fontSize="12.3px">
            <Diamond kind={here.intent} size={11} /> {here.draft ? 'draft' : intentVerb(here.intent)}
          </Flex>
        ))}
      </Flex>
      {shown.map(kind => (
        <Box key={kind} role="gridcell" textAlign="right" color={counts[kind] === 0 ? 'ink3' : 'ink'}>
          {counts[kind] === 0 ? (
            '–'
          ) : (
            <Link to={withQuery('/fleet', { title, outcome: kind, ou: ou.id })}>{count(counts[kind])}</Link>
          )}
        </Box>
      ))}
    </Box>
  )
}
