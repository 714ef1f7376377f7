import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { count, some } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import type { Collection } from '../api/audiences'
import type { PartsOf } from '../../../shared/withParts'
import { AudiencePicker } from './AudiencePicker'

interface Props {
  current: Collection
  names: Readonly<Record<string, string>>
  onChange: (part: PartsOf<Collection>) => void
  onPaste: () => void
}

/** Devices that are put in or left out by hand, whatever the rule says. */
export function ByHandPart({ current, names, onChange, onPaste }: Props) {
  const [adding, setAdding] = useState<'include' | 'exclude' | undefined>(undefined)
  const include = current.include ?? []
  const exclude = current.exclude ?? []
  return (
    <Box mt="3" color="ink2" textStyle="second">
      Also by hand: {some(include.length, 'device')} put in, {count(exclude.length)} left out ·{' '}
      <Button
        variant="text"
        size="xs"
        textStyle="second"
        onClick={() => setAdding(adding === 'include' ? undefined : 'include')}
      >
        put one in…
      </Button>
      <Button
        variant="text"
        size="xs"
        textStyle="second"
        onClick={() => setAdding(adding === 'exclude' ? undefined : 'exclude')}
      >
        leave one out…
      </Button>
      <Button variant="text" size="xs" textStyle="second" onClick={onPaste}>
        paste host names…
      </Button>
      {include.length + exclude.length > 0 && (
        <Button variant="text" size="xs" textStyle="second" onClick={() => onChange({ include: [], exclude: [] })}>
          deselect all of these
        </Button>
      )}
      {adding !== undefined && (
        <Box mt="1.5">
          <AudiencePicker
            key={adding}
            label={adding === 'include' ? 'Put in' : 'Leave out'}
            follows="device"
            first="device"
            only={['device']}
            onChoose={found => {
              if (found.kind === 'device') {
                const device = found.target.slice('device:'.length)
                onChange(
                  adding === 'include'
                    ? { include: [...new Set([...include, device])] }
                    : { exclude: [...new Set([...exclude, device])] },
                )
              }
              setAdding(undefined)
            }}
          />
        </Box>
      )}
      {Object.keys(names).length > 0 && (
        <Box mt="1">
          {include
            .filter(id => names[id] !== undefined)
            .slice(0, 12)
            .map(id => names[id])
            .join(', ')}
        </Box>
      )}
    </Box>
  )
}
