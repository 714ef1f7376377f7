import { Box, chakra, Flex } from '@chakra-ui/react'
import { ChevronRight } from 'lucide-react'
import { memo } from 'react'
import { bandFill, draftedFill, isDark } from '../../../shared/bandFill'
import { Diamond } from '../../../shared/Diamond'
import { count, some } from '../../../shared/format'
import { intentVerb } from '../../../shared/outcomes'
import type { Band } from '../model/layout'
import type { Stretch } from '../model/fill'
import { countsInWords, fill, isEdited } from '../model/fill'

interface Props {
  band: Band
  selected: boolean
  tabbable: boolean
  /** The very same at every drawing, so that a band that stays as it was is not drawn anew. */
  onSelect: (band: Band) => void
  onEnter: (band: Band) => void
}

const LINE = 17
const TWO_LINES = 44
/** What a row of chips takes. */
const CHIPS = 18

/** One OU on the map. */
export const MapBand = memo(function MapBand({ band, selected, tabbable, onSelect, onEnter }: Props) {
  const hasBelow = band.first !== null
  const { ou } = band.node
  const atOu = hasBelow || band.kind === 'own'
  const edited = band.kind !== 'gathered' && isEdited(ou, atOu)
  const stretches: readonly Stretch[] = band.kind === 'gathered' ? [] : fill(ou, atOu)
  const first = stretches[0]
  const onColour = !edited && first !== undefined && isDark(first.kind) && first.share > 0.3
  return (
    <chakra.div
      role="treeitem"
      aria-level={band.column + 1}
      aria-selected={selected}
      aria-label={label(band)}
      data-band={band.id}
      tabIndex={tabbable ? 0 : -1}
      onClick={() => onSelect(band)}
      onDoubleClick={() => onEnter(band)}
      position="absolute"
      overflow="hidden"
      borderRadius="3px"
      cursor="pointer"
      bg={band.column === 0 ? 'bandRoot' : 'bandNone'}
      color={onColour ? 'onBand' : 'ink'}
      outline={selected ? '2px solid' : undefined}
      outlineColor="ink"
      outlineOffset="0"
      zIndex={selected ? 1 : 0}
      _focusVisible={{ outline: '2px solid', outlineColor: 'lagoon', outlineOffset: '1px', zIndex: 2 }}
      style={{ left: band.x, top: band.y, width: band.width, height: band.height }}
    >
      <Colours stretches={stretches} edited={edited} />
      {ou.fenced && band.kind === 'ou' && <Fence />}
      <Label band={band} />
    </chakra.div>
  )
})

function Colours({ stretches, edited }: { stretches: readonly Stretch[]; edited: boolean }) {
  return (
    <>
      {stretches.map((stretch, i) => {
        const from = stretches.slice(0, i).reduce((sum, before) => sum + before.share * 100, 0)
        const { colour, image, size } = edited ? draftedFill(stretch.kind) : bandFill(stretch.kind)
        return (
          (stretch.kind !== 'none' || edited) && (
            <Box
              key={stretch.kind}
              position="absolute"
              top="0"
              bottom="0"
              bgColor={colour}
              css={{ backgroundImage: image, backgroundSize: size }}
              style={{ left: `${from}%`, width: `${stretch.share * 100}%` }}
            />
          )
        )
      })}
    </>
  )
}

/** The double rule on the left edge. */
function Fence() {
  return (
    <>
      <Box position="absolute" left="0" top="0" bottom="0" w="3px" bg="ink" />
      <Box position="absolute" left="3px" top="0" bottom="0" w="2px" bg="panel" />
      <Box position="absolute" left="5px" top="0" bottom="0" w="1px" bg="ink" />
    </>
  )
}

/** A tall band has room for a long name on several lines, and for what is assigned there below it. */
function Label({ band }: { band: Band }) {
  const { ou } = band.node
  const tall = band.height >= TWO_LINES
  const narrow = band.column === 0
  const chips = band.kind === 'ou' && ou.here.length > 0
  const lines = tall ? Math.max(1, Math.floor((band.height - 4 - (chips ? CHIPS : 0)) / LINE)) : 1
  return (
    <Flex
      position="relative"
      h="100%"
      direction={tall ? 'column' : 'row'}
      align={tall ? 'stretch' : 'center'}
      pt={tall ? '4px' : '0'}
      pl={ou.fenced && band.kind === 'ou' ? '13px' : '8px'}
      pr="6px"
      gap={tall ? '2px' : '6px'}
      fontSize="12.3px"
      lineHeight={`${LINE}px`}
    >
      <Flex flex={tall ? undefined : '1'} minW="0" columnGap="6px" {...(narrow && tall && { wrap: 'wrap' })}>
        <Box
          minW="0"
          fontWeight={band.kind === 'ou' ? '600' : '400'}
          {...(tall ? { lineClamp: Math.min(lines, 3), overflowWrap: 'anywhere' } : { truncate: true })}
        >
          {words(band)}
        </Box>
        <Box flexShrink="0">{figure(band)}</Box>
        {tall && band.deeper && (
          <Box ml="auto">
            <ChevronRight size={13} aria-hidden="true" />
          </Box>
        )}
      </Flex>
      {chips && (
        <Flex gap="4px" wrap={tall ? 'wrap' : 'nowrap'} flexShrink="0">
          <Here band={band} />
        </Flex>
      )}
      {!tall && band.deeper && <ChevronRight size={13} aria-hidden="true" />}
    </Flex>
  )
}

function words(band: Band): string {
  switch (band.kind) {
    case 'ou':
      return band.node.ou.name
    case 'own':
      return band.node.ou.parent === undefined ? 'outside every OU' : 'in this OU itself'
    case 'gathered':
      return `and ${count(band.gathered)} more${band.weight === 0 ? ' without devices' : ''}`
  }
}

function figure(band: Band): string {
  switch (band.kind) {
    case 'ou':
      return count(band.node.ou.devices)
    case 'own':
      return count(band.node.ou.own)
    case 'gathered':
      return band.weight === 0 ? '' : count(band.weight)
  }
}

function Here({ band }: { band: Band }) {
  return (
    <>
      {band.node.ou.here.map(here => (
        <Flex
          key={here.assignment}
          align="center"
          gap="4px"
          bg="chip"
          color="ink"
          borderRadius="9px"
          px="6px"
          h="16px"
          fontSize="11px"
          flexShrink="0"
        >
          <Diamond kind={here.intent} size={10} />
          {here.draft ? 'draft' : here.binding ? 'binding' : 'here'}
        </Flex>
      ))}
    </>
  )
}

function label(band: Band): string {
  const { ou } = band.node
  switch (band.kind) {
    case 'gathered':
      return `and ${count(band.gathered)} more OUs in ${ou.name}: open them`
    case 'own':
      return `${some(ou.own, 'device')} in ${ou.name} itself`
    case 'ou': {
      const here = ou.here.map(h => `${intentVerb(h.intent)} ${h.draft ? 'in the draft' : 'here'}`)
      const parts = [
        some(ou.devices, 'device'),
        countsInWords(ou.after ?? ou.counts),
        ...here,
        ou.fenced ? 'fenced' : '',
      ]
      return `${ou.name}: ${parts.filter(part => part !== '').join('; ')}`
    }
  }
}
