import { Box, Flex, Grid } from '@chakra-ui/react'
import { memo, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { NumberField } from '../../../shared/ui/NumberField'
import { Segments } from '../../../shared/ui/Segments'
import { Select, TextField } from '../../../shared/ui/TextField'
import { Tick } from '../../../shared/ui/fields'
import type { Courtesy } from '../model/sheet'
import { otherwiseWords, seconds } from '../model/words'
import type { Sheet } from '../state/useSheet'
import { SheetRow } from './SheetRow'

interface Props {
  sheet: Sheet
  problems: readonly string[]
}

/** All that has a default that mostly fits: one line until it is opened. */
export const OtherwisePart = memo(function OtherwisePart({ sheet, problems }: Props) {
  const { assignment } = sheet.written
  const [open, setOpen] = useState(false)
  return (
    <SheetRow heading="Otherwise" problems={problems}>
      <Box color="ink2" pt="1">
        {otherwiseWords(assignment)}{' '}
        <Button variant="text" size="xs" onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? 'close' : 'change'}
        </Button>
      </Box>
      {open && <Fields sheet={sheet} />}
    </SheetRow>
  )
})

const BEFORE = [
  { value: '', words: 'not before' },
  { value: 'PT1H', words: 'an hour before' },
  { value: 'P1D', words: 'a day before' },
  { value: 'P1D PT1H', words: 'a day and an hour before' },
] as const

const RESTARTS = [
  { value: 'ask', words: 'is asked for' },
  { value: 'night', words: 'is asked for, or comes in the next window' },
  { value: 'now', words: 'comes after 5 minutes' },
  { value: 'none', words: 'waits until somebody restarts' },
] as const

const SIGN_OUTS = [
  { value: 'wait', words: 'waits for the next one' },
  { value: 'ask', words: 'is asked for' },
  { value: 'night', words: 'is asked for, or comes at night' },
  { value: 'now', words: 'comes after 5 minutes' },
  { value: 'none', words: 'never comes by itself' },
] as const

function Fields({ sheet }: { sheet: Sheet }) {
  const { assignment } = sheet.written
  const courtesy: Courtesy = assignment.courtesy ?? {}
  const before = (courtesy.tell?.before ?? []).join(' ')
  const restart = courtesy.restart
  const way = restart?.way ?? 'ask'
  const change = (next: Courtesy) => sheet.change({ courtesy: plain(next) })
  const defer = (times: number, hours: number) =>
    change({ ...courtesy, restart: { way, defer: { times, until: `PT${hours}H` } } })
  const times = restart?.defer?.times ?? 3
  const hours = Math.round((seconds(restart?.defer?.until ?? 'PT8H') ?? 28_800) / 3600)
  return (
    <Grid templateColumns={{ base: '1fr', md: '150px 1fr' }} gap="2.5" mt="2" alignItems="center" textStyle="compact">
      <Box>Binding</Box>
      <Tick
        label="crosses fences, cannot be undone below"
        on={assignment.binding === true}
        onChange={binding => sheet.change({ binding: binding ? true : undefined })}
      />
      <Box>Priority</Box>
      <NumberField
        label="Priority"
        labelHidden
        value={String(assignment.priority ?? 500)}
        onChange={text => sheet.change({ priority: text === '' || Number(text) === 500 ? undefined : Number(text) })}
        min={0}
        max={1000}
        width="90px"
      />
      <Box>When a device leaves</Box>
      <Segments
        label="When a device leaves"
        value={assignment.leaving ?? 'keep'}
        choices={[
          { value: 'keep', words: 'keep it' },
          { value: 'remove', words: 'remove it' },
        ]}
        onChange={leaving => sheet.change({ leaving: leaving === 'keep' ? undefined : leaving })}
      />
      {assignment.intent === 'available' && (
        <>
          <Box>Device’s menu</Box>
          <Tick
            label="an entry there opens the shelf at this title, and takes it"
            on={assignment.menu === true}
            onChange={menu => sheet.change({ menu: menu ? true : undefined })}
          />
        </>
      )}
      <Box>People are told</Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Select
          aria-label="People are told"
          value={before}
          onChange={event =>
            change({
              ...courtesy,
              tell: { ...courtesy.tell, before: event.target.value === '' ? [] : event.target.value.split(' ') },
            })
          }
        >
          {BEFORE.every(one => one.value !== before) && <option value={before}>{before}</option>}
          {BEFORE.map(one => (
            <option key={one.value} value={one.value}>
              {one.words}
            </option>
          ))}
        </Select>
        <Tick
          label="when it begins"
          on={courtesy.tell?.start === true}
          onChange={start =>
            change({ ...courtesy, tell: { ...courtesy.tell, before: courtesy.tell?.before ?? [], start } })
          }
        />
        <Tick
          label="when it is done"
          on={courtesy.tell?.done !== false}
          onChange={done =>
            change({ ...courtesy, tell: { ...courtesy.tell, before: courtesy.tell?.before ?? [], done } })
          }
        />
        <Tick
          label="only what asks or counts down"
          on={courtesy.quiet === true}
          onChange={quiet => change({ ...courtesy, quiet })}
        />
      </Flex>
      <Box>A restart</Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Select
          aria-label="A restart"
          value={way}
          onChange={event => {
            const chosen = RESTARTS.find(one => one.value === event.target.value)?.value ?? 'ask'
            change({ ...courtesy, restart: { ...restart, way: chosen } })
          }}
        >
          {RESTARTS.map(one => (
            <option key={one.value} value={one.value}>
              {one.words}
            </option>
          ))}
        </Select>
        {(way === 'ask' || way === 'night') && (
          <>
            put off at most
            <NumberField
              label="How often it may be put off"
              labelHidden
              value={String(times)}
              onChange={text => defer(Number(text) || 0, hours)}
              min={0}
              max={100}
              width="60px"
            />
            times, for
            <NumberField
              label="For how many hours in all"
              labelHidden
              value={String(hours)}
              onChange={text => defer(times, Number(text) || 1)}
              min={1}
              max={720}
              width="60px"
            />
            hours
          </>
        )}
      </Flex>
      <Box>A sign-out</Box>
      <Select
        aria-label="A sign-out"
        w="fit-content"
        value={courtesy.signOut?.way ?? 'wait'}
        onChange={event => {
          const chosen = SIGN_OUTS.find(one => one.value === event.target.value)?.value ?? 'wait'
          change({ ...courtesy, signOut: { ...courtesy.signOut, way: chosen } })
        }}
      >
        {SIGN_OUTS.map(one => (
          <option key={one.value} value={one.value}>
            {one.words}
          </option>
        ))}
      </Select>
      <Box>Note</Box>
      <TextField
        label="Note"
        labelHidden
        placeholder="such as the number of the change that approved it"
        value={assignment.note ?? ''}
        onChange={note => sheet.change({ note: note === '' ? undefined : note })}
      />
    </Grid>
  )
}

/** Without what is as usual, so that an assignment says only what is not. */
function plain(courtesy: Courtesy): Courtesy | undefined {
  const next: Courtesy = {}
  if (courtesy.quiet === true) {
    next.quiet = true
  }
  const { before = [], start = false, done = true } = courtesy.tell ?? {}
  if (before.length > 0 || start || !done) {
    next.tell = { before, ...(start && { start }), ...(!done && { done }) }
  }
  if (courtesy.restart !== undefined && (courtesy.restart.way !== 'ask' || courtesy.restart.defer !== undefined)) {
    next.restart = courtesy.restart
  }
  if (courtesy.signOut !== undefined && courtesy.signOut.way !== 'wait') {
    next.signOut = courtesy.signOut
  }
  return Object.keys(next).length === 0 ? undefined : next
}
