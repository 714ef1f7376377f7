import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import type { Choice, Fixed, ReleaseRecord, TitlePageData } from '../api/catalogue'
import { useFixed } from '../api/rights'
import type { Values } from '../model/choices'
import { chosen, costs, isMany, valueWords } from '../model/choices'

const PersonWindow = lazy(() => import('./PersonWindow').then(part => ({ default: part.PersonWindow })))

/** What may be chosen of a release, and who has fixed what. */
export function ChoicesPart({ page, release }: { page: TitlePageData; release: ReleaseRecord }) {
  const fixed = useFixed(page.record.id)
  const [person, setPerson] = useState<Fixed | 'new' | undefined>(undefined)
  return (
    <>
      {release.choices.length === 0 && (
        <Box color="ink2" textStyle="second">
          No choices: every device gets the same.
        </Box>
      )}
      {release.choices.map(choice => (
        <ChoiceLine key={choice.id} choice={choice} release={release} />
      ))}
      {(fixed.data ?? []).map(line => (
        <Flex key={`${line.kind} ${line.id}`} gap="2" textStyle="second" mt="1.5" color="ink2">
          <Box flex="1" minW="0">
            <b>{line.name}</b> gets {words(release, line.values)}
          </Box>
          {line.kind === 'person' && (
            <Button variant="text" size="xs" textStyle="second" onClick={() => setPerson(line)}>
              edit
            </Button>
          )}
        </Flex>
      ))}
      {release.choices.length > 0 && (
        <Button variant="text" size="xs" px="0" mt="1" textStyle="second" onClick={() => setPerson('new')}>
          Set for a person…
        </Button>
      )}
      {person !== undefined && (
        <Suspense fallback={null}>
          <PersonWindow
            title={page.record.id}
            release={release}
            line={person === 'new' ? undefined : person}
            onClose={() => setPerson(undefined)}
          />
        </Suspense>
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
    <Flex gap="1.5" wrap="wrap" align="center" textStyle="compact" mb="1">
      {name(choice)}
      {choice.usual !== '' &&
        chosen(choice, choice.usual).map(one => (
          <Box
            key={one}
            borderWidth="1px"
            borderBottomWidth="2px"
            borderColor="line"
            borderRadius="sm"
            px="1.5"
            textStyle="code"
          >
            {valueWords(choice, one)}
          </Box>
        ))}
      <Box color="ink2" textStyle="second">
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
