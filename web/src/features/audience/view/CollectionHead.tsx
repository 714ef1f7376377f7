import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { AudienceData, Collection } from '../api/audiences'
import type { PartsOf } from '../../../shared/withParts'
import { AudiencePicker } from './AudiencePicker'

interface Props {
  view: AudienceData | undefined
  current: Collection
  names: Readonly<Record<string, string>>
  onChange: (part: PartsOf<Collection>) => void
  onNamed: (named: Record<string, string>) => void
}

/** What a collection is, and below which OU it looks. */
export function CollectionHead({ view, current, names, onChange, onNamed }: Props) {
  const [choosing, setChoosing] = useState(false)
  const base =
    current.base === undefined
      ? undefined
      : (names[current.base] ??
        (view?.path.at(-1)?.id === current.base ? view.path.at(-1)?.name : undefined) ??
        'an OU')
  return (
    <Box color="ink2" textStyle="second" mt="1.5">
      collection · below <b>{base ?? 'the whole organisation'}</b>{' '}
      <Button variant="text" size="xs" textStyle="second" onClick={() => setChoosing(!choosing)}>
        {choosing ? 'close' : 'another OU…'}
      </Button>
      {base !== undefined && (
        <Button variant="text" size="xs" textStyle="second" onClick={() => onChange({ base: undefined })}>
          the whole organisation
        </Button>
      )}
      {view !== undefined && view.oddities.length > 0 && (
        <Box as="span" color="ochre">
          {' · '}
          {view.oddities.join(' · ')}
        </Box>
      )}
      {view?.collection?.draft === true && ' · in the draft'}
      {choosing && (
        <Box mt="1.5">
          <AudiencePicker
            label="Below which OU"
            follows="device"
            only={['ou']}
            onChoose={found => {
              const ou = found.target.slice('ou:'.length)
              onNamed({ [ou]: found.name })
              onChange({ base: ou })
              setChoosing(false)
            }}
          />
        </Box>
      )}
    </Box>
  )
}
