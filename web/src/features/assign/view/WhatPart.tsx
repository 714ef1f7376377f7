import { Box, Flex } from '@chakra-ui/react'
import { memo, useState } from 'react'
import { count } from '../../../shared/format'
import type { Intent } from '../../../shared/outcomes'
import { intentVerb } from '../../../shared/outcomes'
import { useKeys } from '../../../shared/keys'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Kbd } from '../../../shared/ui/Kbd'
import { Later } from '../../../shared/ui/Later'
import { Segments } from '../../../shared/ui/Segments'
import { Select } from '../../../shared/ui/TextField'
import { ChooseWindow, fixedWords, TitlePicker, useChoosable, useTitleNames, useVersions } from '../../catalogue'
import type { Tried } from '../api/assign'
import type { Sheet } from '../state/useSheet'
import { Chip } from './Chip'
import { SheetRow } from './SheetRow'

const INTENTS = [
  { intent: 'required', key: 'r' },
  { intent: 'available', key: 'o' },
  { intent: 'uninstall', key: 'x' },
] as const satisfies readonly { intent: Intent; key: string }[]

interface Props {
  sheet: Sheet
  /** Of the title; nothing for a kit. */
  title: string | undefined
  name: string
  tried: Tried | undefined
  problems: readonly string[]
}

/** What happens with the title, whom it stays with, and which release. */
export const WhatPart = memo(function WhatPart({ sheet, title, name, tried, problems }: Props) {
  const { assignment } = sheet.written
  const versions = useVersions(title ?? '')
  const release = useChoosable(title ?? '')
  const [choosing, setChoosing] = useState(false)
  useKeys(
    'The assignment',
    INTENTS.map(({ intent, key }) => ({
      key,
      says: `${intentVerb(intent)} ${name}`,
      act: () => sheet.change({ intent }),
    })),
  )
  const held = assignment.release
  const installs = assignment.intent !== 'uninstall'
  const people = (tried?.include ?? []).reduce((sum, one) => sum + one.people, 0)
  const devices = (tried?.include ?? []).reduce((sum, one) => sum + one.devices, 0)
  return (
    <SheetRow heading="What" problems={problems}>
      <Flex gap="2" wrap="wrap" align="center">
        <Flex role="group" aria-label="Intent">
          {INTENTS.map(({ intent, key }) => (
            <Button
              key={intent}
              size="lg"
              borderRadius="0"
              style={{ marginLeft: -1 }}
              _first={{ borderLeftRadius: 'md' }}
              _last={{ borderRightRadius: 'md' }}
              variant={assignment.intent === intent ? 'chosen' : 'plain'}
              aria-pressed={assignment.intent === intent}
              onClick={() => sheet.change({ intent })}
            >
              <Diamond kind={intent} /> {intentVerb(intent)} <Kbd>{key.toUpperCase()}</Kbd>
            </Button>
          ))}
        </Flex>
        <Box color="ink2">following</Box>
        <Segments
          label="Following"
          value={assignment.follows}
          choices={[
            { value: 'device', words: tried === undefined ? 'the device' : `the device (${count(devices)} here)` },
            { value: 'user', words: tried === undefined ? 'the person' : `the person (${count(people)} here)` },
          ]}
          onChange={follows => sheet.change({ follows })}
        />
      </Flex>
      {installs && title !== undefined && (
        <Flex mt="2" gap="1.5" align="center" wrap="wrap" color="ink2" textStyle="second">
          <Select
            aria-label="Release"
            h="7"
            textStyle="second"
            value={held ?? ''}
            onChange={event => sheet.change({ release: event.target.value === '' ? undefined : event.target.value })}
          >
            <option value="">Newest release that fits</option>
            {versions.map(version => (
              <option key={version} value={`=${version}`}>
                Held to {version}
              </option>
            ))}
          </Select>
          {(tried?.releases ?? []).map(one => `${one.version} on ${count(one.n)}`).join(', ')}
          {release !== undefined && (
            <>
              {' · '}
              {fixedWords(release, assignment.choices ?? {})}
              <Button variant="text" size="xs" textStyle="second" onClick={() => setChoosing(true)}>
                choose…
              </Button>
            </>
          )}
        </Flex>
      )}
      {sheet.isNew && <AlsoPart sheet={sheet} title={title} />}
      <Later open={choosing}>
        {choosing && release !== undefined && (
          <ChooseWindow
            release={release}
            values={assignment.choices ?? {}}
            heading={`What is chosen of ${name}`}
            onClose={() => setChoosing(false)}
            onChosen={values => {
              sheet.change({ choices: Object.keys(values).length === 0 ? undefined : { ...values } })
              setChoosing(false)
            }}
          />
        )}
      </Later>
    </SheetRow>
  )
})

/** Further titles that are assigned alike, each by its newest release and with its default choices. */
function AlsoPart({ sheet, title }: { sheet: Sheet; title: string | undefined }) {
  const [adding, setAdding] = useState(false)
  const names = useTitleNames()
  const also = sheet.written.also ?? []
  return (
    <Flex mt="1.5" gap="2" align="center" wrap="wrap">
      {also.map(subject => {
        const name = names[subject.slice('title:'.length)] ?? subject
        return (
          <Chip key={subject} name={name} onRemove={() => sheet.setAlso(also.filter(one => one !== subject))}>
            also <b>{name}</b>
          </Chip>
        )
      })}
      {adding ? (
        <TitlePicker
          label="Another title, assigned alike"
          width="240px"
          without={[...also.map(subject => subject.slice('title:'.length)), ...(title === undefined ? [] : [title])]}
          onChoose={chosen => {
            sheet.setAlso([...also, `title:${chosen}`])
            setAdding(false)
          }}
        />
      ) : (
        <Button variant="text" size="xs" ml="-1" onClick={() => setAdding(true)}>
          another title too…
        </Button>
      )}
    </Flex>
  )
}
