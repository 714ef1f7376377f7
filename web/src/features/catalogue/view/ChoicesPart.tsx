import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { Window } from '../../../shared/Window'
import type { Choice, Fixed, ReleaseRecord, TitlePageData } from '../api/catalogue'
import { useFix, useFixed } from '../api/rights'
import type { Values } from '../model/choices'
import { chosen, costs, isMany, valueWords } from '../model/choices'
import { ChoiceFields } from './ChoiceFields'
import { TextField } from '../../../shared/TextField'

/** What may be chosen of a release, and who has fixed what. */
export function ChoicesPart({ page, release }: { page: TitlePageData; release: ReleaseRecord }) {
  const fixed = useFixed(page.record.id)
  const [person, setPerson] = useState<Fixed | 'new' | undefined>(undefined)
  return (
    <>
      {release.choices.length === 0 && (
        <Box color="ink2" fontSize="12.3px">
          No choices: every device gets the same.
        </Box>
      )}
      {release.choices.map(choice => (
        <ChoiceLine key={choice.id} choice={choice} release={release} />
      ))}
      {(fixed.data ?? []).map(line => (
        <Flex key={`${line.kind} ${line.id}`} gap="8px" fontSize="12.3px" mt="5px" color="ink2">
          <Box flex="1" minW="0">
            <b>{line.name}</b> gets {words(release, line.values)}
          </Box>
          {line.kind === 'person' && (
            <Button variant="text" h="18px" fontSize="12.3px" onClick={() => setPerson(line)}>
              edit
            </Button>
          )}
        </Flex>
      ))}
      {release.choices.length > 0 && (
        <Button variant="text" h="22px" px="0" mt="4px" fontSize="12.3px" onClick={() => setPerson('new')}>
          Set for a person…
        </Button>
      )}
      {person !== undefined && (
        <PersonWindow
          title={page.record.id}
          release={release}
          line={person === 'new' ? undefined : person}
          onClose={() => setPerson(undefined)}
        />
      )}
    </>
  )
}

function words(release: ReleaseRecord, values: Values): string {
  return Object.entries(values)
    .map(([id, value]) => {
      const choice = release.choices.find(c => c.id === id)
      return choice === undefined ? `${id} ${value}` : `${name(choice).toLowerCase()} ${valueWords(choice, value)}`
    })
    .join(', ')
}

function name(choice: Choice): string {
  return choice.text === '' ? choice.id : choice.text
}

function ChoiceLine({ choice, release }: { choice: Choice; release: ReleaseRecord }) {
  const each = [...new Set(choice.allowed.map(one => costs(release, one)).filter(cost => cost !== ''))]
  return (
    <Flex gap="5px" wrap="wrap" align="center" fontSize="13px" mb="4px">
      {name(choice)}
      {choice.usual !== '' &&
        chosen(choice, choice.usual).map(one => (
          <Box
            key={one}
            borderWidth="1px"
            borderBottomWidth="2px"
            borderColor="line"
            borderRadius="4px"
            px="5px"
            fontSize="12px"
          >
            {valueWords(choice, one)}
          </Box>
        ))}
      <Box color="ink2" fontSize="12.3px">
        {isMany(choice) || choice.kind === 'channel' ? `of ${choice.allowed.length}` : ''}
        {each.length === 1 && ` · ${each[0] ?? ''} each`}
        {choice.kind === 'number' && range(choice)}
      </Box>
    </Flex>
  )
}

function range(choice: Choice): string {
  const least = choice.least === undefined ? '' : `from ${choice.least}`
  const most = choice.most === undefined ? '' : `to ${choice.most}`
  return [least, most].filter(part => part !== '').join(' ')
}

function PersonWindow({
  title,
  release,
  line,
  onClose,
}: {
  title: string
  release: ReleaseRecord
  line: Fixed | undefined
  onClose: () => void
}) {
  const fix = useFix(title)
  const [person, setPerson] = useState(line?.name ?? '')
  const [values, setValues] = useState<Values>(line?.values ?? {})
  const save = (all: Values) => fix.mutate({ person: line?.id ?? person.trim(), values: all }, { onSuccess: onClose })
  return (
    <Window
      open
      onClose={onClose}
      heading={line === undefined ? 'Set for a person' : `Set for ${line.name}`}
      width="560px"
      foot={
        <Flex gap="8px" align="center" w="100%">
          <Box flex="1" fontSize="13px" color="trouble" role={fix.isError ? 'alert' : undefined}>
            {fix.isError && sentence(fix.error)}
          </Box>
          {line !== undefined && (
            <Button size="lg" onClick={() => save({})}>
              Use the defaults
            </Button>
          )}
          <Button
            size="lg"
            variant="chosen"
            loading={fix.isPending}
            disabled={person.trim() === '' || Object.keys(values).length === 0}
            onClick={() => save(values)}
          >
            Set
          </Button>
        </Flex>
      }
    >
      {line === undefined && (
        <Box mb="12px">
          <TextField
            label="Person"
            value={person}
            required
            hint="The account name, such as imara.voss"
            onChange={setPerson}
          />
        </Box>
      )}
      <ChoiceFields release={release} values={values} onChange={setValues} />
      <Box color="ink2" fontSize="12.3px">
        It counts on the devices of this person, where the assignment does not set it, the next time the title is
        installed.
      </Box>
    </Window>
  )
}
