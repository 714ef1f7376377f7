import type { SystemStyleObject } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { memo } from 'react'
import type { BandFill } from '../../../shared/bandFill'
import { bandFill, draftedFill, isDark } from '../../../shared/bandFill'
import { Diamond } from '../../../shared/ui/Diamond'
import { count, some } from '../../../shared/format'
import { intentVerb, SHOWN } from '../../../shared/outcomes'
import type { Band } from '../model/layout'
import { sameBand } from '../model/layout'
import type { Stretch } from '../model/fill'
import { behindLabel, countsInWords, fill, isEdited } from '../model/fill'

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
const MOST_LINES = 3
/** So narrow that a figure stands below the name. */
const NARROW = 120

const filled = (name: string, { colour, image, size }: BandFill) => [
  `& .${name}`,
  {
    bgColor: colour,
    ...(image !== undefined && { backgroundImage: image }),
    ...(size !== undefined && { backgroundSize: size }),
  },
]

/**
 * How bands look, said once for the whole map: there are hundreds of them, and they are drawn anew while one walks. So they are plain elements
 * with class names, and each is one component.
 */
export const BAND_STYLES: SystemStyleObject = {
  '& .band': {
    position: 'absolute',
    overflow: 'hidden',
    borderRadius: 'sm',
    cursor: 'pointer',
    bg: 'bandNone',
    color: 'ink',
    textStyle: 'second',
    lineHeight: 'inherit',
  },
  '& .band[data-column="0"]': { bg: 'bandRoot' },
  '& .band[data-dark]': { color: 'onBand' },
  '& .band[aria-selected=true]': { outline: '2px solid', outlineColor: 'ink', zIndex: 1 },
  '& .band:focus-visible': { outline: '2px solid', outlineColor: 'lagoon', outlineOffset: '1px', zIndex: 2 },
  '& .fill': { position: 'absolute', top: '0', bottom: '0' },
  '& .lit': {
    position: 'absolute',
    right: '4px',
    bottom: '2px',
    px: '1.5',
    borderRadius: 'sm',
    bg: 'honey',
    color: 'onHoney',
    fontWeight: '700',
    textStyle: 'fine',
  },
  '& .fence': { position: 'absolute', top: '0', bottom: '0', left: '0', width: '6px', bg: 'panel', borderColor: 'ink' },
  '& .fence::before': { content: '""', position: 'absolute', insetY: '0', left: '0', width: '3px', bg: 'ink' },
  '& .fence::after': { content: '""', position: 'absolute', insetY: '0', right: '0', width: '1px', bg: 'ink' },
  '& .label': {
    position: 'relative',
    height: '100%',
    display: 'flex',
    alignItems: 'center',
    gap: '1.5',
    pl: '2',
    pr: '1.5',
  },
  '& .label.tall': { flexDirection: 'column', alignItems: 'stretch', gap: '0.5', pt: '1' },
  '& .label.fenced': { pl: '3.5' },
  '& .words': { display: 'flex', flex: '1', minW: '0', columnGap: '1.5' },
  '& .tall .words': { flex: 'none' },
  '& .tall.narrow .words': { flexWrap: 'wrap' },
  '& .name': { minW: '0', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& .tall .name': {
    whiteSpace: 'normal',
    display: '-webkit-box',
    WebkitBoxOrient: 'vertical',
    overflowWrap: 'anywhere',
    hyphens: 'auto',
  },
  '& .ou .name': { fontWeight: '600' },
  '& .figure': { flexShrink: '0' },
  '& .deeper': { marginLeft: 'auto', flexShrink: '0', width: '13px', display: 'flex', alignItems: 'center' },
  '& .deeper::before': {
    content: '""',
    width: '6px',
    height: '6px',
    borderTop: '1.5px solid',
    borderRight: '1.5px solid',
    borderColor: 'currentcolor',
    transform: 'translateX(1px) rotate(45deg)',
  },
  '& .chips': { display: 'flex', gap: '1', flexShrink: '0' },
  '& .tall .chips': { flexWrap: 'wrap' },
  '& .chip': {
    display: 'flex',
    alignItems: 'center',
    gap: '1',
    bg: 'chip',
    color: 'ink',
    borderRadius: 'lg',
    px: '1.5',
    h: '16px',
    textStyle: 'fine',
    flexShrink: '0',
  },
  ...Object.fromEntries(SHOWN.map(kind => filled(`fill-${kind}`, bandFill(kind)))),
  ...Object.fromEntries(SHOWN.map(kind => filled(`drafted-${kind}`, draftedFill(kind)))),
}

/** One OU on the map; drawn anew only where it looks or acts otherwise than before. */
export const MapBand = memo(BandElement, (before, after) => {
  const { band, ...others } = before
  const { band: next, ...rest } = after
  return (
    sameBand(band, next) && Object.entries(others).every(([key, value]) => rest[key as keyof typeof rest] === value)
  )
})

function BandElement({ band, selected, tabbable, onSelect, onEnter }: Props) {
  const hasBelow = band.first !== null
  const { ou } = band.node
  const atOu = hasBelow || band.kind === 'own'
  const edited = band.kind !== 'gathered' && isEdited(ou, atOu)
  const stretches: readonly Stretch[] = band.kind === 'gathered' ? [] : fill(ou, atOu)
  const behind = behindLabel(stretches)
  const onColour = !edited && behind !== undefined && isDark(behind)
  return (
    <div
      className="band"
      role="treeitem"
      aria-level={ou.depth + (band.kind === 'ou' ? 1 : 2)}
      aria-posinset={band.place}
      aria-setsize={band.among}
      aria-expanded={hasBelow ? true : band.deeper || band.kind === 'gathered' ? false : undefined}
      aria-selected={selected}
      aria-label={label(band)}
      data-band={band.id}
      data-column={band.column}
      data-dark={onColour ? '' : undefined}
      tabIndex={tabbable ? 0 : -1}
      onClick={() => onSelect(band)}
      onDoubleClick={() => onEnter(band)}
      style={{ left: band.x, top: band.y, width: band.width, height: band.height }}
    >
      {colours(stretches, edited)}
      {ou.fenced && band.kind === 'ou' && <div className="fence" />}
      {(ou.lit ?? 0) > 0 && band.kind === 'ou' && <div className="lit">{count(ou.lit ?? 0)}</div>}
      {inner(band)}
    </div>
  )
}

function colours(stretches: readonly Stretch[], edited: boolean): ReactNode {
  return stretches.map((stretch, i) => {
    const from = stretches.slice(0, i).reduce((sum, before) => sum + before.share * 100, 0)
    return (
      (stretch.kind !== 'none' || edited) && (
        <div
          key={stretch.kind}
          className={`fill ${edited ? 'drafted' : 'fill'}-${stretch.kind}`}
          style={{ left: `${from}%`, width: `${stretch.share * 100}%` }}
        />
      )
    )
  })
}

/** A tall band has room for a long name on several lines, and for what is assigned there below it. */
function inner(band: Band): ReactNode {
  const { ou } = band.node
  const tall = band.height >= TWO_LINES
  const hasChips = band.kind === 'ou' && ou.here.length > 0
  const narrow = band.column === 0 || band.width < NARROW
  // Of a narrow one, the figure may take a line of its own.
  const room = Math.floor((band.height - 4 - (hasChips ? CHIPS : 0)) / LINE) - (narrow ? 1 : 0)
  const lines = tall ? Math.max(1, room) : 1
  const looks = [
    'label',
    band.kind,
    tall ? 'tall' : '',
    narrow ? 'narrow' : '',
    ou.fenced && band.kind === 'ou' ? 'fenced' : '',
  ]
  const deeper = band.deeper && <span className="deeper" aria-hidden="true" />
  return (
    <div className={looks.join(' ')} style={{ lineHeight: `${LINE}px` }}>
      <div className="words">
        <div className="name" style={tall ? { WebkitLineClamp: Math.min(lines, MOST_LINES) } : undefined}>
          {words(band)}
        </div>
        <div className="figure">{figure(band)}</div>
        {tall && deeper}
      </div>
      {hasChips && chips(band)}
      {!tall && deeper}
    </div>
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

function chips(band: Band): ReactNode {
  return (
    <div className="chips">
      {band.node.ou.here.map(one => (
        <div key={one.assignment} className="chip">
          <Diamond kind={one.intent} size={10} />
          {one.draft ? 'draft' : one.binding ? 'binding' : 'here'}
        </div>
      ))}
    </div>
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
        ou.lit === undefined ? '' : `${count(ou.lit)} of those that are lit up`,
      ]
      return `${ou.name}: ${parts.filter(part => part !== '').join('; ')}`
    }
  }
}
