import { Box, Flex } from '@chakra-ui/react'
import type { KeyboardEvent } from 'react'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Button } from '../../../shared/Button'
import { useSize } from '../../../shared/useSize'
import type { Band } from '../model/layout'
import { layOut, neighbour } from '../model/layout'
import type { OuNode } from '../model/tree'
import { findNode, pathTo } from '../model/tree'
import type { ReachAddress } from '../model/useReachAddress'
import { MapBand } from './MapBand'

interface Props {
  tree: OuNode
  address: ReachAddress
  selected: string
}

/** The organisation as nested bands, level by level from left to right. */
export function ReachMap({ tree, address, selected }: Props) {
  const [frame, size] = useSize<HTMLDivElement>()
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set())
  const [focused, setFocused] = useState<string | null>(null)
  const top = findNode(tree, address.zoom ?? tree.ou.id) ?? tree
  const layout = useMemo(
    () => layOut(top, { width: size.width, height: size.height }, opened),
    [top, size.width, size.height, opened],
  )
  const map = useRef<HTMLDivElement>(null)
  // The focus follows what one does on the map, once: whatever is drawn anew later must not take it back.
  const wanted = useRef<string | null>(null)
  const goTo = (band: string) => {
    const element = map.current?.querySelector<HTMLElement>(`[data-band="${CSS.escape(band)}"]`)
    element?.focus()
    wanted.current = element === null || element === undefined ? band : null
  }
  useEffect(() => {
    if (wanted.current !== null) {
      goTo(wanted.current)
    }
  }, [focused, layout])
  const focus = (band: string) => {
    setFocused(band)
    goTo(band)
  }

  const activate = (band: Band) => {
    if (band.kind === 'gathered') {
      setOpened(before => new Set(before).add(band.node.ou.id))
      focus(band.node.ou.id)
    } else {
      address.select(band.node.ou.id)
      focus(band.id)
    }
  }
  const enter = (band: Band) => {
    if (band.kind === 'ou' && band.node.children.length > 0 && band.node !== top) {
      address.zoomTo(band.node.ou.id)
      focus(band.id)
    } else {
      activate(band)
    }
  }
  const out = () => {
    const path = pathTo(tree, top.ou.id)
    const parent = path.at(-2)
    if (parent !== undefined) {
      address.zoomTo(parent === tree ? undefined : parent.ou.id)
      focus(top.ou.id)
    }
  }
  const pressed = (event: KeyboardEvent) => {
    const at = layout.bands.find(b => b.id === (focused ?? selected))
    if (event.key === 'Escape' && top !== tree) {
      out()
    } else if (event.key === 'Enter' && at !== undefined) {
      enter(at)
    } else {
      const next = event.key.startsWith('Arrow') ? neighbour(layout, focused ?? selected, event.key) : null
      if (next === null) {
        return
      }
      focus(next.id)
      if (next.kind === 'ou') {
        address.select(next.node.ou.id)
      }
    }
    event.preventDefault()
  }
  const acts = useRef({ activate, enter })
  useEffect(() => {
    acts.current = { activate, enter }
  })
  const select = useCallback((band: Band) => acts.current.activate(band), [])
  const goIn = useCallback((band: Band) => acts.current.enter(band), [])
  const reachable = layout.bands.some(b => b.id === selected) ? selected : (layout.bands[0]?.id ?? '')
  return (
    <Flex direction="column" h="100%" gap="4px">
      {top !== tree && (
        <Flex gap="4px" align="center" color="ink3" fontSize="12.3px">
          {pathTo(tree, top.ou.id).map(node => (
            <Button
              key={node.ou.id}
              variant="text"
              h="20px"
              onClick={() => address.zoomTo(node === tree ? undefined : node.ou.id)}
            >
              {node.ou.name}
            </Button>
          ))}
          <span>Escape goes out</span>
        </Flex>
      )}
      <Box ref={frame} flex="1" minH="0" overflowY="auto" overflowX="hidden" p="2px" m="-2px">
        <Box
          ref={map}
          role="tree"
          aria-label="Organisational units and what they receive"
          position="relative"
          onKeyDown={pressed}
          style={{ height: layout.height }}
        >
          {size.width > 0 &&
            layout.bands.map(band => (
              <MapBand
                key={band.id}
                band={band}
                selected={band.kind === 'ou' && band.node.ou.id === selected}
                tabbable={band.id === (focused ?? reachable)}
                onSelect={select}
                onEnter={goIn}
              />
            ))}
        </Box>
      </Box>
    </Flex>
  )
}
