import { Box } from '@chakra-ui/react'
import { useQuery, keepPreviousData } from '@tanstack/react-query'
import type { Api } from '../api'
import { ask } from '../api'
import { count, some } from '../format'
import { useSettled } from '../useSettled'
import { TextField } from './TextField'

interface Props {
  label?: string
  value: string
  onChange: (value: string) => void
  onBlur?: () => void
  hint?: string
  rows?: number
  /** What else is wrong with it. */
  problem?: string | undefined
}

const PAUSE_MS = 250

/** A rule by which devices are chosen. While it is written it says for how many it holds, or what is wrong with it and where. */
export function RuleField({ label = 'Devices where', value, hint, rows = 2, problem, ...rest }: Props) {
  const rule = useSettled(value, PAUSE_MS).trim()
  const tried = useQuery({
    queryKey: ['rule', rule],
    queryFn: () => ask<Api['TriedRule']>('POST', '/api/rules/trial', { rule }),
    enabled: rule !== '',
    placeholderData: keepPreviousData,
  })
  const known = rule === '' || tried.data === undefined ? undefined : tried.data
  return (
    <Box>
      <TextField
        label={label}
        mono
        rows={rows}
        value={value}
        problem={problem ?? (value.trim() === '' ? undefined : known?.problem)}
        {...(hint !== undefined && { hint })}
        {...rest}
      />
      <Box role="status" color="ink2" textStyle="second" minH="4">
        {value.trim() === '' && 'Every device'}
        {value.trim() !== '' && known?.devices !== undefined && (
          <>
            <b>{count(known.devices)}</b> of {some(known.fleet, 'device')}
          </>
        )}
      </Box>
    </Box>
  )
}
