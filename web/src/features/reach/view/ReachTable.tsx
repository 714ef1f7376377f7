import { Box, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { ChevronDown, ChevronRight } from 'lucide-react'
import type { KeyboardEvent } from 'react'
import { useEffect, useId, useRef, useState } from 'react'
import { Link } from 'react-router'
import { withQuery } from '../../../shared/api'
import { count } from '../../../shared/format'
import type { Shown } from '../../../shared/outcomes'
import { intentVerb, outcomeWords } from '../../../shared/outcomes'
import { Diamond } from '../../../shared/ui/Diamond'
import { Panel } from '../../../shared/ui/Panel'
import type { OuReach, Reach } from '../api/reach'
import { useBelow } from '../api/reach'
import { occurring } from '../model/fill'
import type { TreeLine } from '../model/tree'
import { treeLines } from '../model/tree'

interface Props {
  reach: Reach
  root: OuReach
  selected: string
  onSelect: (ou: string) => void
}

const ROW = 30
const INDENT = 16
const columns = (outcomes: number) => `minmax(160px, 1fr) 58px 92px repeat(${outcomes}, 84px)`

/**
 * The same content as the map, line by line. The arrow keys walk and expand it as a tree grid is (WAI-ARIA, 3.29 Treegrid): right expands an OU and
 * goes into it, left closes it and goes out of it.
 */
export function ReachTable({ reach, root, selected, onSelect }: Props) {
  const [expanded, setExpanded] = useState<ReadonlySet<string>>(() => new Set([root.id]))
  const open = [...expanded]
  const loaded = useBelow(reach.title, open)
  const lines = treeLines(root, expanded, ou => loaded[open.indexOf(ou)]?.data)
  const shown = occurring(reach.totals, reach.totalsAfter)
  const frame = useRef<HTMLDivElement>(null)
  const prefix = useId()
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
  })
  const at = lines.findIndex(line => line.ou.id === selected)
  const scrollTo = useRef(virtual.scrollToIndex)
  useEffect(() => {
    scrollTo.current = virtual.scrollToIndex
  })
  useEffect(() => {
    if (at >= 0) {
      scrollTo.current(at)
    }
  }, [at])
  const expand = (ou: string, on: boolean) => {
    const next = new Set(expanded)
    if (on) {
      next.add(ou)
    } else {
      next.delete(ou)
    }
    setExpanded(next)
  }
  const select = (line: TreeLine | undefined) => line !== undefined && onSelect(line.ou.id)
  const pressed = (event: KeyboardEvent) => {
    const line = lines[at]
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) {
      return
    }
    switch (event.key) {
      case 'ArrowDown':
      case 'ArrowUp':
        select(at < 0 ? lines[0] : lines[at + (event.key === 'ArrowDown' ? 1 : -1)])
        break
      case 'Home':
        select(lines[0])
        break
      case 'End':
        select(lines.at(-1))
        break
      case 'ArrowRight':
        if (line?.expanded === false) {
          expand(line.ou.id, true)
        } else if (lines[at + 1]?.ou.parent === line?.ou.id) {
          // Not before what stands in it has come.
          select(lines[at + 1])
        }
        break
      case 'ArrowLeft':
        if (line?.expanded === true) {
          expand(line.ou.id, false)
        } else {
          select(lines.find(other => other.ou.id === line?.ou.parent))
        }
        break
      default:
        return
    }
    event.preventDefault()
  }
  const items = virtual.getVirtualItems()
  return (
    <Panel
      column
      h="100%"
      role="treegrid"
      aria-label="Organisational units and what they receive"
      aria-rowcount={lines.length + 1}
      tabIndex={0}
      onKeyDown={pressed}
      aria-activedescendant={items.some(item => item.index === at) ? `${prefix}-${at}` : undefined}
      data-list=""
      overflowX="auto"
      overflowY="hidden"
    >
      <Heads shown={shown} />
      <Box ref={frame} flex="1" overflowY="auto" role="rowgroup">
        <Box position="relative" role="presentation" style={{ height: virtual.getTotalSize() }}>
          {items.map(item => {
            const line = lines[item.index]
            return (
              line !== undefined && (
                <Row
                  key={line.ou.id}
                  id={`${prefix}-${item.index}`}
                  line={line}
                  shown={shown}
                  title={reach.title}
                  index={item.index}
                  top={item.start}
                  selected={item.index === at}
                  onSelect={onSelect}
                  onExpand={expand}
                />
              )
            )
          })}
        </Box>
      </Box>
    </Panel>
  )
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
        gap="2"
        px="3"
        py="1.5"
        color="ink3"
        textStyle="second"
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
  id: string
  line: TreeLine
  shown: readonly Shown[]
  title: string
  index: number
  top: number
  selected: boolean
  onSelect: (ou: string) => void
  onExpand: (ou: string, on: boolean) => void
}

function Row({ id, line, shown, title, index, top, selected, onSelect, onExpand }: RowProps) {
  const { ou, expanded } = line
  const counts = ou.after ?? ou.counts
  return (
    <Box
      id={id}
      role="row"
      aria-level={ou.depth + 1}
      aria-posinset={line.place}
      aria-setsize={line.among}
      aria-rowindex={index + 2}
      aria-expanded={expanded}
      aria-selected={selected}
      onClick={() => onSelect(ou.id)}
      onDoubleClick={() => expanded !== undefined && onExpand(ou.id, !expanded)}
      position="absolute"
      left="0"
      right="0"
      display="grid"
      gridTemplateColumns={columns(shown.length)}
      alignItems="center"
      gap="2"
      px="3"
      cursor="pointer"
      borderBottomWidth="1px"
      borderColor="line"
      bg={selected ? 'lagoonSoft' : undefined}
      _hover={{ bg: 'hover' }}
      css={{ '& a:hover': { textDecoration: 'underline' } }}
      style={{ top, height: ROW }}
    >
      <Flex role="gridcell" minW="0" align="center" gap="1" fontWeight="600" style={{ paddingLeft: ou.depth * INDENT }}>
        <Box
          w="4"
          flexShrink="0"
          color="ink3"
          aria-hidden="true"
          data-expand=""
          onClick={event => {
            if (expanded !== undefined) {
              event.stopPropagation()
              onExpand(ou.id, !expanded)
            }
          }}
        >
          {expanded === true && <ChevronDown size={14} />}
          {expanded === false && <ChevronRight size={14} />}
        </Box>
        <Box truncate>{ou.name}</Box>
        {ou.fenced && (
          <Box as="span" color="ink3" fontWeight="400" flexShrink="0">
            · fenced
          </Box>
        )}
      </Flex>
      <Box role="gridcell" textAlign="right">
        {count(ou.devices)}
      </Box>
      <Flex role="gridcell" gap="2">
        {ou.here.map(here => (
          <Flex key={here.assignment} align="center" gap="1" textStyle="second">
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
