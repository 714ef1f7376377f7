import { Box } from '@chakra-ui/react'
import { count, some } from '../../../shared/format'
import type { Effects } from '../api/catalogue'
import { effectWords } from '../model/effects'

/** What a change of a title would do to the fleet, group by group. */
export function EffectList({ effects }: { effects: Effects }) {
  if (effects.effects.length === 0) {
    return <>Rehearsed on {some(effects.devices, 'device')}: nothing changes for any of them.</>
  }
  return (
    <>
      Rehearsed on {some(effects.devices, 'device')}:
      <Box as="ul" listStyleType="none" mt="1">
        {effects.effects.map(effect => (
          <Box as="li" key={`${effect.title} ${effect.effect} ${effect.version ?? ''}`}>
            <b>{count(effect.devices)}</b> {effectWords(effect)}
          </Box>
        ))}
      </Box>
    </>
  )
}
