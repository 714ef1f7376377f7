import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { sentence } from '../../../shared/api'
import { Button } from '../../../shared/ui/Button'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
import { AudiencePicker } from '../../audience'
import type { Fixed, ReleaseRecord } from '../api/catalogue'
import { useFix } from '../api/rights'
import type { Values } from '../model/choices'
import { ChoiceFields } from './ChoiceFields'

interface Props {
  title: string
  release: ReleaseRecord
  /** What is set already; nothing for another person. */
  line: Fixed | undefined
  onClose: () => void
}

/** What one person gets of a title. */
export function PersonWindow({ title, release, line, onClose }: Props) {
  const fix = useFix(title)
  const [person, setPerson] = useState(line === undefined ? undefined : { id: line.id, name: line.name })
  const [values, setValues] = useState<Values>(line?.values ?? {})
  const save = (all: Values) =>
    person !== undefined && fix.mutate({ person: person.id, values: all }, { onSuccess: onClose })
  return (
    <Window
      open
      onClose={onClose}
      heading={person === undefined ? 'Set for a person' : `Set for ${person.name}`}
      width="560px"
      foot={
        <WindowFoot
          trouble={fix.isError ? sentence(fix.error) : undefined}
          onCancel={onClose}
          before={
            line !== undefined && (
              <Button size="lg" onClick={() => save({})}>
                Use the defaults
              </Button>
            )
          }
        >
          <Button
            size="lg"
            variant="chosen"
            loading={fix.isPending}
            disabled={person === undefined || Object.keys(values).length === 0}
            onClick={() => save(values)}
          >
            Set
          </Button>
        </WindowFoot>
      }
    >
      {line === undefined && (
        <Box mb="3">
          <AudiencePicker
            label="Find a person"
            follows="person"
            only={['person']}
            first="person"
            onChoose={one => one.kind === 'user' && setPerson({ id: one.target.slice('user:'.length), name: one.name })}
          />
        </Box>
      )}
      <ChoiceFields release={release} values={values} onChange={setValues} />
      <Box color="ink2" textStyle="second">
        It counts on the devices of this person, where the assignment does not set it, the next time the title is
        installed.
      </Box>
    </Window>
  )
}
