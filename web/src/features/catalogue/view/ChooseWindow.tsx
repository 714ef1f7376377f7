import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
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
        <WindowFoot note="It goes into the draft." onCancel={onClose}>
          <Button size="lg" variant="chosen" onClick={() => onChosen(values)}>
            Choose
          </Button>
        </WindowFoot>
      }
    >
      <ChoiceFields release={release} values={values} onChange={setValues} />
      <Box color="ink2" textStyle="second">
        What stays at its default here can be set for a person. Devices that have the title keep what they have until it
        is installed again.
      </Box>
    </Window>
  )
}
