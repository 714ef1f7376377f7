import { Box, Flex } from '@chakra-ui/react'
import { memo, useState } from 'react'
import { some } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import { NumberField } from '../../../shared/ui/NumberField'
import { StackBar } from '../../../shared/ui/StackBar'
import { Tick } from '../../../shared/ui/fields'
import type { Audience } from '../../audience'
import { AudiencePicker } from '../../audience'
import type { Tried, WavesView } from '../api/assign'
import { useWaves } from '../api/assign'
import type { Wave } from '../model/sheet'
import { rolledOut, withWave } from '../model/sheet'
import { laneWords, rolloutWords, waveWords } from '../model/words'
import type { Sheet } from '../state/useSheet'
import { RolloutFields } from './RolloutFields'
import { SheetRow } from './SheetRow'

interface Props {
  sheet: Sheet
  tried: Tried | undefined
  problems: readonly string[]
}

/** A few first, then wider. Whoever no wave takes is in the last. */
export const WavesPart = memo(function WavesPart({ sheet, tried, problems }: Props) {
  const { assignment } = sheet.written
  const waves = assignment.waves ?? []
  const [adding, setAdding] = useState(false)
  const [names, setNames] = useState<Readonly<Record<string, string>>>({})
  const [ruling, setRuling] = useState(false)
  const progress = useWaves(sheet.written.revision === 0 || waves.length === 0 ? undefined : assignment.id)
  const { rollout } = assignment
  const stopped = rollout?.stopped === true
  // As long as the waves are those that are published.
  const lanes = progress.data?.lanes.length === waves.length ? progress.data.lanes : []
  const change = (next: readonly Wave[]) =>
    sheet.change(next.length === 0 ? { waves: undefined, rollout: undefined } : { waves: [...next] })
  // What is added stands before the rest.
  const add = (wave: Wave) =>
    change(waves.length === 0 ? [wave, REST] : [...waves.slice(0, -1), wave, waves.at(-1) ?? REST])
  const known = new Map((tried?.waves ?? []).flatMap(wave => wave.to.map(one => [one.target, one.name] as const)))
  const whole = (tried?.waves ?? []).reduce((sum, wave) => sum + wave.n, 0)
  const chosen = (audience: Audience) => {
    setNames(before => ({ ...before, [audience.target]: audience.name }))
    add({ to: [audience.target], open: waves.length === 0 })
    setAdding(false)
  }
  return (
    <SheetRow heading="Waves" problems={problems}>
      {waves.length === 0 ? (
        <Box color="ink2" pt="1">
          Everybody at once.
        </Box>
      ) : (
        waves.map((wave, i) => (
          <WaveLine
            // Waves have no names; their places do.
            key={i}
            at={i}
            wave={wave}
            words={waveWords(wave, i === waves.length - 1, target => names[target] ?? known.get(target) ?? target)}
            last={i === waves.length - 1}
            n={tried?.waves[i]?.n}
            lane={lanes[i]}
            whole={whole}
            onChange={next => change(withWave(waves, i, next))}
            onRemove={() => change(waves.length <= 2 ? [] : withWave(waves, i, undefined))}
          />
        ))
      )}
      {waves.length > 0 && (
        <Box color="ink2" textStyle="second" mt="1">
          {stopped ? 'Stopped: nothing further opens; what is open stays open.' : rolloutWords(rollout)}{' '}
          <Button variant="text" size="inline" onClick={() => setRuling(!ruling)} aria-expanded={ruling}>
            {ruling ? 'close' : 'change'}
          </Button>
          {!sheet.isNew && (
            <>
              {' · '}
              <Button
                variant="text"
                size="inline"
                onClick={() => sheet.change({ rollout: rolledOut(rollout, { stopped: stopped ? undefined : true }) })}
              >
                {stopped ? 'let the waves go on' : 'stop the waves'}
              </Button>
            </>
          )}
          {!stopped && isTold(progress.data) && <Box>Now: {progress.data?.next.sentence}</Box>}
        </Box>
      )}
      {ruling && waves.length > 0 && (
        <RolloutFields
          rollout={rollout}
          offers={assignment.intent === 'available'}
          onChange={next => sheet.change({ rollout: rolledOut(rollout, next) })}
        />
      )}
      <Flex gap="1" mt="1" ml="-1">
        <Button variant="text" size="xs" onClick={() => add({ share: 10, open: waves.length === 0 })}>
          {waves.length === 0 ? 'in waves: a share first…' : 'add a share…'}
        </Button>
        <Button variant="text" size="xs" onClick={() => setAdding(!adding)}>
          {waves.length === 0 ? 'an audience first…' : 'add an audience…'}
        </Button>
      </Flex>
      {adding && (
        <Box mt="1">
          <AudiencePicker label="Who is in this wave" follows="either" first="group" onChoose={chosen} />
        </Box>
      )}
    </SheetRow>
  )
})

/** What comes next by a rule; that all are open, or that each opens by hand, is to be seen already. */
function isTold(progress: WavesView | undefined): boolean {
  return progress !== undefined && !['all-open', 'by-hand', 'stopped'].includes(progress.next.kind)
}

const REST: Wave = { to: [], open: false }

interface LineProps {
  at: number
  wave: Wave
  words: string
  last: boolean
  n: number | undefined
  /** How far it has come, as it is published. */
  lane: WavesView['lanes'][number] | undefined
  whole: number
  onChange: (wave: Wave) => void
  onRemove: () => void
}

function WaveLine({ at, wave, words, last, n, lane, whole, onChange, onRemove }: LineProps) {
  const come = lane ?? { inPlace: 0, failed: 0 }
  return (
    <Flex gap="2.5" align="center" py="1" wrap="wrap">
      <Box w="170px" minW="0">
        {wave.share !== undefined && !last ? (
          <Flex gap="1.5" align="center">
            {at + 1} ·
            <NumberField
              label={`Share of wave ${at + 1}, in 100`}
              labelHidden
              value={String(wave.share)}
              onChange={text => onChange({ ...wave, share: Number(text) || 0 })}
              min={0}
              max={100}
              width="64px"
            />
            in 100
          </Flex>
        ) : (
          <Box truncate>
            {at + 1} · {words}
          </Box>
        )}
      </Box>
      <Box flex="1" minW="80px">
        <StackBar
          whole={whole}
          words={`Wave ${at + 1}`}
          parts={[
            { id: 'inPlace', n: come.inPlace, colour: 'bandRequired' },
            { id: 'failed', n: come.failed, colour: 'trouble' },
            {
              id: 'rest',
              n: Math.max((n ?? 0) - come.inPlace - come.failed, 0),
              colour: wave.open && lane === undefined ? 'bandRequired' : 'lagoonLine',
            },
          ]}
        />
        {lane !== undefined && wave.open && (
          <Box color="ink2" textStyle="second">
            {laneWords(lane)}
          </Box>
        )}
      </Box>
      <Box w="90px" color="ink2" textAlign="right">
        {n === undefined ? '' : some(n, 'device')}
      </Box>
      <Tick label="open" on={wave.open} onChange={open => onChange({ ...wave, open })} />
      <Button
        variant="text"
        size="xs"
        onClick={onRemove}
        visibility={last ? 'hidden' : undefined}
        aria-label={`Delete wave ${at + 1}`}
      >
        delete
      </Button>
    </Flex>
  )
}
