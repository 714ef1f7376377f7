import { Box, Flex, Grid } from '@chakra-ui/react'
import { NumberField } from '../../../shared/ui/NumberField'
import { Select } from '../../../shared/ui/TextField'
import { Tick } from '../../../shared/ui/fields'
import type { PartsOf } from '../../../shared/withParts'
import { withParts } from '../../../shared/withParts'
import { atLocal, fromLocal } from '../model/local'
import type { Rollout } from '../model/sheet'
import { periodWords } from '../model/words'
import { LocalField } from './LocalField'

interface Props {
  rollout: Rollout | undefined
  /** Whether it is only offered: then nothing is in place because of it. */
  offers: boolean
  onChange: (change: PartsOf<Rollout>) => void
}

type Stops = NonNullable<Rollout['stops']>

const PERIODS = ['PT1H', 'PT4H', 'P1D', 'P2D', 'P7D', 'P14D']
const USUAL_SHARE = 95
const USUAL_FAILED = 5
const USUAL_LEAST = 3
const DAY_MS = 86_400_000

/** When the next wave opens by itself, and when they stop. */
export function RolloutFields({ rollout, offers, onChange }: Props) {
  const opens = rollout?.opens ?? {}
  const stops = rollout?.stops
  const change = (next: PartsOf<NonNullable<Rollout['opens']>>) => {
    const after = withParts(opens, next)
    onChange({ opens: Object.keys(after).length === 0 ? undefined : after })
  }
  const periods = opens.after === undefined || PERIODS.includes(opens.after) ? PERIODS : [opens.after, ...PERIODS]
  return (
    <Grid templateColumns={{ base: '1fr', md: '150px 1fr' }} gap="2" mt="2" alignItems="center" textStyle="compact">
      <Box>The next opens</Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Tick
          label="when so many of the last are in place"
          on={opens.inPlace !== undefined}
          onChange={on => change({ inPlace: on ? USUAL_SHARE : undefined, atLeast: undefined })}
        />
        {opens.inPlace !== undefined && (
          <Numbers
            share={opens.inPlace}
            least={opens.atLeast}
            what="in place"
            from={1}
            onChange={(inPlace, atLeast) => change({ inPlace, atLeast })}
          />
        )}
        {offers && opens.inPlace !== undefined && (
          <Box color="trouble">Nothing is in place because it is offered; choose a time.</Box>
        )}
      </Flex>
      <Box>at the earliest</Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Select
          aria-label="How long after the last"
          value={opens.after ?? ''}
          onChange={event => change({ after: event.target.value === '' ? undefined : event.target.value })}
        >
          <option value="">at any time after the last</option>
          {periods.map(period => (
            <option key={period} value={period}>
              {periodWords(period)} after the last
            </option>
          ))}
        </Select>
        <Tick
          label="not before"
          on={opens.notBefore !== undefined}
          onChange={on => change({ notBefore: on ? new Date(Date.now() + DAY_MS).toISOString() : undefined })}
        />
        {opens.notBefore !== undefined && (
          <LocalField
            label="Not before, by your clock"
            value={atLocal(opens.notBefore)}
            onChange={text => text !== '' && change({ notBefore: fromLocal(text) })}
          />
        )}
      </Flex>
      <Box>They stop</Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Tick
          label="when more than so many of those that tried fail"
          on={stops !== undefined}
          onChange={on => onChange({ stops: on ? { failed: USUAL_FAILED, atLeast: USUAL_LEAST } : undefined })}
        />
        {stops !== undefined && (
          <Numbers
            share={stops.failed}
            least={stops.atLeast}
            what="failed"
            from={0}
            onChange={(failed, atLeast) => onChange({ stops: withParts<Stops>({ failed }, { atLeast }) })}
          />
        )}
      </Flex>
    </Grid>
  )
}

interface NumbersProps {
  share: number
  least: number | undefined
  what: string
  from: number
  onChange: (share: number, least: number | undefined) => void
}

/** So many in 100, and at least so many of them. */
function Numbers({ share, least, what, from, onChange }: NumbersProps) {
  return (
    <Flex gap="1.5" align="center">
      <NumberField
        label={`How many in 100 ${what}`}
        labelHidden
        value={String(share)}
        onChange={text => onChange(Number(text) || 0, least)}
        min={from}
        max={100}
        width="60px"
      />
      in 100, at least
      <NumberField
        label={`How many ${what} at least`}
        labelHidden
        value={String(least ?? 1)}
        onChange={text => onChange(share, Number(text) > 1 ? Number(text) : undefined)}
        min={1}
        max={1_000_000}
        width="70px"
      />
    </Flex>
  )
}
