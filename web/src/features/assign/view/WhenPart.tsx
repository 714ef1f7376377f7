import { Box, Flex } from '@chakra-ui/react'
import { memo } from 'react'
import { count } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { Button } from '../../../shared/ui/Button'
import { Select } from '../../../shared/ui/TextField'
import type { Tried } from '../api/assign'
import { deadlineProblem } from '../model/words'
import { atLocal, fromLocal } from '../model/local'
import type { Deadline } from '../model/sheet'
import type { Sheet } from '../state/useSheet'
import { LocalField } from './LocalField'
import { SheetRow } from './SheetRow'

interface Props {
  sheet: Sheet
  tried: Tried | undefined
  problems: readonly string[]
  onList: (part: string) => void
}

const WINDOWS = [
  { value: 'wait', words: 'in maintenance windows' },
  { value: 'deadline-wins', words: 'in windows, at the deadline all the same' },
  { value: 'ignore', words: 'at any time' },
] as const

/** From when, until when, and whether maintenance windows count. */
export const WhenPart = memo(function WhenPart({ sheet, tried, problems, onList }: Props) {
  const { assignment } = sheet.written
  const { from, deadline } = assignment
  const now = useNow(60_000)
  const late = tried?.figures.find(figure => figure.part === 'late')?.n ?? 0
  const wrong = deadlineProblem(assignment, now)
  const clock = deadline?.at === undefined ? 'local' : 'at'
  const setDeadline = (text: string, by: 'local' | 'at') =>
    sheet.change({ deadline: text === '' ? undefined : written(text, by) })
  return (
    <SheetRow heading="When" problems={wrong === undefined ? problems : [...problems, wrong]}>
      <Flex gap="2" wrap="wrap" align="center" color="ink2">
        <Select
          aria-label="From"
          value={from === undefined ? 'now' : 'at'}
          onChange={event =>
            sheet.change({ from: event.target.value === 'now' ? undefined : new Date(now + DAY_MS).toISOString() })
          }
        >
          <option value="now">at once</option>
          <option value="at">from</option>
        </Select>
        {from !== undefined && (
          <LocalField
            label="From, by your clock"
            value={atLocal(from)}
            onChange={text => text !== '' && sheet.change({ from: fromLocal(text) })}
          />
        )}
        <Select
          aria-label="Deadline"
          value={deadline === undefined ? 'none' : clock}
          onChange={event => {
            const chosen = event.target.value
            if (chosen === 'none') {
              sheet.change({ deadline: undefined, windows: assignment.windows === 'ignore' ? 'ignore' : undefined })
            } else {
              setDeadline(local(deadline, now), chosen === 'at' ? 'at' : 'local')
            }
          }}
        >
          <option value="none">no deadline</option>
          <option value="local">until, by the device&rsquo;s clock</option>
          <option value="at">until one instant for all</option>
        </Select>
        {deadline !== undefined && (
          <LocalField label="Until" value={local(deadline, now)} onChange={text => setDeadline(text, clock)} />
        )}
        <Select
          aria-label="Maintenance windows"
          value={assignment.windows ?? 'wait'}
          onChange={event => {
            const chosen = WINDOWS.find(one => one.value === event.target.value)?.value
            sheet.change({ windows: chosen === 'wait' ? undefined : chosen })
          }}
        >
          {WINDOWS.filter(one => one.value !== 'deadline-wins' || deadline !== undefined).map(one => (
            <option key={one.value} value={one.value}>
              {one.words}
            </option>
          ))}
        </Select>
      </Flex>
      {late > 0 && wrong === undefined && (
        <Box color="ink2" textStyle="second" mt="1.5">
          <Button variant="text" size="inline" onClick={() => onList('late')}>
            {count(late)} have no window before then
          </Button>{' '}
          ({tried?.late.join(', ')})
          {assignment.windows === 'deadline-wins' ? (
            ': at the deadline it is done all the same.'
          ) : (
            <>
              : for them the deadline passes.{' '}
              <Button variant="text" size="inline" onClick={() => sheet.change({ windows: 'deadline-wins' })}>
                do it at the deadline all the same
              </Button>
            </>
          )}
        </Box>
      )}
    </SheetRow>
  )
})

const DAY_MS = 86_400_000

function written(text: string, by: 'local' | 'at'): Deadline {
  return by === 'local' ? { local: text } : { at: fromLocal(text) }
}

/** The deadline as a field shows it; six in the evening a week from now where there is none. */
function local(deadline: Deadline | undefined, now: number): string {
  if (deadline?.local !== undefined) {
    return deadline.local.slice(0, 16)
  }
  return deadline?.at === undefined
    ? `${atLocal(new Date(now + 7 * DAY_MS).toISOString()).slice(0, 11)}18:00`
    : atLocal(deadline.at)
}
