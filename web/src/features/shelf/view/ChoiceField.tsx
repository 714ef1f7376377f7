import { Box, Flex } from '@chakra-ui/react'
import { Tick } from '../../../shared/ui/fields'
import { Select } from '../../../shared/ui/TextField'
import type { Choice, Chosen } from '../model/choices'
import { chosenOf, withChoice } from '../model/choices'

interface Props {
  choice: Choice
  chosen: Chosen
  onChange: (chosen: Chosen) => void
}

/** Something that one may choose of a title: several of a list, or one. */
export function ChoiceField({ choice, chosen, onChange }: Props) {
  const on = chosenOf(choice, chosen)
  const change = (value: string, is: boolean) => onChange(withChoice(choice, chosen, value, is))
  return (
    <Box role="group" aria-label={choice.name}>
      <Box fontWeight="600" textStyle="compact" mb="1">
        {choice.name}
      </Box>
      {choice.many ? (
        <Flex columnGap="4" rowGap="1" wrap="wrap">
          {choice.values.map(one => (
            <Tick key={one.value} label={one.name} on={on.includes(one.value)} onChange={is => change(one.value, is)} />
          ))}
        </Flex>
      ) : (
        <Select aria-label={choice.name} value={on[0]} onChange={event => change(event.target.value, true)}>
          {choice.values.map(one => (
            <option key={one.value} value={one.value}>
              {one.name}
            </option>
          ))}
        </Select>
      )}
    </Box>
  )
}
