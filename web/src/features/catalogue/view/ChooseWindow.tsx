import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { Window } from '../../../shared/Window'
import type { ReleaseRecord } from '../api/catalogue'
import type { Values } from '../model/choices'
import { ChoiceFields } from './ChoiceFields'

interface Props {
  heading: string
  release: ReleaseRecord
  values: Values
  onChosen: (values: Values) => void
  onClose: () => void
}

/** What an assignment fixes of a title's choices. */
export function ChooseWindow({ heading, release, values: before, onChosen, onClose }: Props) {
  const [values, setValues] = useState(before)
  return (
    <Window
      open
      onClose={onClose}
      heading={heading}
      width="560px"
      foot={
        <Flex gap="8px" align="center" w="100%">
          <Box flex="1" color="ink2" fontSize="13px">
            It goes into the draft.
          </Box>
          <Button size="lg" onClick={onClose}>
            Leave it
          </Button>
          <Button size="lg" variant="chosen" onClick={() => onChosen(values)}>
            Choose
          </Button>
        </Flex>
      }
    >
      <ChoiceFields release={release} values={values} onChange={setValues} />
      <Box color="ink2" fontSize="12.3px">
        What is left open here, a person may fix for themselves. Devices that have it keep what they have until it goes
        on again.
      </Box>
    </Window>
  )
}
