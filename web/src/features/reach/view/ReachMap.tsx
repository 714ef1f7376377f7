import { Box, Flex } from '@chakra-ui/react'
import type { KeyboardEvent } from 'react'
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { PlainStyles } from '../../../shared/ui/PlainStyles'
import { useAddressState } from '../../../shared/useAddressState'
import { useSize } from '../../../shared/useSize'
import { useSteady } from '../../../shared/useSteady'
import type { Reach } from '../api/reach'
import type { Band } from '../model/layout'
import { bandsNear, layOut, neighbour } from '../model/layout'
import { REACH_ADDRESS } from '../model/reachAddress'
import type { OuNode } from '../model/tree'
import { BAND_STYLES, MapBand } from './MapBand'

interface Props {
  /** From the root to the OU that the map begins with. */
  path: Reach['path']
  tree: OuNode
  selected: string
  /** Told the OU that is chosen, or walked to. */
  onSelect: (ou: string) => void
}

const WALKING = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End']

/** Bands are drawn anew after so many pixels of scrolling. */
const STEP = 200

/** The organisation as nested bands, level by level from left to right. */
export const ReachMap = memo(function ReachMap({ path, tree, selected, onSelect }: Props) {
  const [address, change] = useAddressState(REACH_ADDRESS)
  const [frame, size] = useSize<HTMLDivElement>()
  const [focused, setFocused] = useState<string | null>(null)
  const layout = useMemo(
    () => layOut(tree, { width: size.width, height: size.height }),
    [tree, size.width, size.height],
  )
  const map = useRef<HTMLDivElement>(null)
  const [scrolled, setScrolled] = useState(0)
  // The focus follows what one does on the map, once: whatever is drawn anew later must not take it back.
  const wanted = useRef<string | null>(null)
  const goTo = useCallback(
    (band: string) => {
      const element = map.current?.querySelector<HTMLElement>(`[data-band="${CSS.escape(band)}"]`)
      element?.focus()
      wanted.current = element === null || element === undefined ? band : null
      // What is far from what is looked at is not drawn yet.
      const far = wanted.current === null ? undefined : layout.bands.find(b => b.id === band)
      if (far !== undefined) {
        frame.current?.scrollTo({ top: far.y - size.height / 2 })
      }
    },
    [frame, layout, size.height],
  )
  useEffect(() => {
    if (wanted.current !== null) {
      goTo(wanted.current)
    }
  }, [focused, goTo, scrolled])
  const focus = (band: string) => {
    setFocused(band)
    goTo(band)
  }
  const isRoot = path.length <= 1
  const zoomTo = (ou: string | undefined) => change({ in: ou === undefined || ou === path[0]?.id ? '' : ou })
  const activate = (band: Band) => {
    if (band.kind === 'gathered') {
      change({ all: [...address.all, band.node.ou.id] })
      focus(band.node.ou.id)
    } else {
      onSelect(band.node.ou.id)
      focus(band.id)
    }
  }
  const enter = (band: Band) => {
    if (band.kind === 'ou' && band.node.ou.below > 0 && band.node.ou.id !== tree.ou.id) {
      zoomTo(band.node.ou.id)
      focus(band.id)
    } else {
      activate(band)
    }
  }
  const out = () => {
    zoomTo(path.at(-2)?.id)
    focus(tree.ou.id)
  }
  const reachable = layout.bands.some(b => b.id === selected) ? selected : (layout.bands[0]?.id ?? '')
  const pressed = (event: KeyboardEvent) => {
    const from = focused ?? reachable
    const at = layout.bands.find(b => b.id === from)
    if (event.ctrlKey || event.metaKey || event.altKey) {
      return
    }
    if (event.key === 'Escape' && !isRoot) {
      out()
    } else if (event.key === 'Enter' && at !== undefined) {
      enter(at)
    } else if (event.key === 'ArrowRight' && at?.deeper === true) {
      enter(at)
    } else if (event.key === 'ArrowLeft' && at?.node.ou.id === tree.ou.id && !isRoot) {
      out()
    } else {
      const next = WALKING.includes(event.key) ? neighbour(layout, from, event.key) : null
      if (next === null) {
        return
      }
      focus(next.id)
      if (next.kind === 'ou') {
        onSelect(next.node.ou.id)
      }
    }
    event.preventDefault()
  }
  const tabbable = layout.bands.some(b => b.id === focused) ? focused : reachable
  const near = bandsNear(layout.bands, scrolled, size.height)
  const select = useSteady(activate)
  const goIn = useSteady(enter)
  return (
    <Flex direction="column" h="100%" gap="1">
      {!isRoot && (
        <Flex gap="1" align="center" color="ink3" textStyle="second">
          {path.map(part => (
            <Button key={part.id} variant="text" size="xs" onClick={() => zoomTo(part.id)}>
              {part.name}
            </Button>
          ))}
          <span>Escape goes out</span>
        </Flex>
      )}
      <PlainStyles within="bands" styles={BAND_STYLES} />
      <Box
        ref={frame}
        flex="1"
        minH="0"
        overflowY="auto"
        overflowX="hidden"
        p="0.5"
        m="-0.5"
        onScroll={event => setScrolled(Math.floor(event.currentTarget.scrollTop / STEP) * STEP)}
      >
        <Box
          ref={map}
          role="tree"
          aria-label="Organisational units and what they receive"
          position="relative"
          className="bands"
          onKeyDown={pressed}
          data-list=""
          style={{ height: layout.height }}
        >
          {size.width > 0 &&
            layout.bands
              .filter(band => near.has(band.id) || band.id === tabbable)
              .map(band => (
                <MapBand
                  key={band.id}
                  band={band}
                  selected={band.kind === 'ou' && band.node.ou.id === selected}
                  tabbable={band.id === tabbable}
                  onSelect={select}
                  onEnter={goIn}
                />
              ))}
        </Box>
      </Box>
    </Flex>
  )
})
