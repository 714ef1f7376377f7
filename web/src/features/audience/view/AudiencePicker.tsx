import { Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { count, some } from '../../../shared/format'
import { Picker } from '../../../shared/ui/Picker'
import { Segments } from '../../../shared/ui/Segments'
import type { Audience } from '../api/audiences'
import { useAudiences } from '../api/audiences'
import type { Follows, KindTab } from '../model/kinds'
import { holdsWords, matchesOf, tabsFor } from '../model/kinds'

interface Props {
  label: string
  follows: Follows
  /** The kind that it opens on; OUs when not given. */
  first?: KindTab
  /** Those of them that are offered; all that fit when not given. */
  only?: readonly KindTab[]
  /** Whether all kinds stand in one list, without tabs. */
  single?: boolean
  /** Whether one types into it as soon as it is there. */
  autoFocus?: boolean
  onChoose: (audience: Audience) => void
}

/** Whom something is assigned to. It opens on the kind that fits; the others are beside it, each with how many match what is typed. */
export function AudiencePicker({
  label,
  follows,
  first = 'ou',
  only,
  single = false,
  autoFocus = false,
  onChoose,
}: Props) {
  const [words, setWords] = useState('')
  const [tab, setTab] = useState<KindTab>(first)
  const tabs = tabsFor(follows).filter(one => only === undefined || only.includes(one.id))
  const chosen = tabs.find(one => one.id === tab) ?? tabs[0]
  const found = useAudiences(words, single ? tabs.flatMap(one => one.kinds) : (chosen?.kinds ?? []))
  const lines = found.data?.lines ?? []
  const matches = (single ? tabs : tabs.filter(one => one === chosen)).reduce(
    (sum, one) => sum + matchesOf(one.id, found.data),
    0,
  )
  return (
    <Flex direction="column" gap="1.5" align="flex-start">
      {!single && tabs.length > 1 && chosen !== undefined && (
        <Segments
          label={`${label}: which kind`}
          value={chosen.id}
          choices={tabs.map(one => ({
            value: one.id,
            words: words === '' ? one.words : `${one.words} ${count(matchesOf(one.id, found.data))}`,
          }))}
          onChange={setTab}
        />
      )}
      <Picker
        label={label}
        labelHidden
        autoFocus={autoFocus}
        placeholder={label}
        items={lines.map(line => ({
          id: line.target,
          name: line.name,
          second: line.where,
          aside: holds(line, follows),
        }))}
        onType={setWords}
        onChoose={target => {
          const line = lines.find(one => one.target === target)
          if (line !== undefined) {
            onChoose(line)
          }
        }}
        empty={found.data === undefined ? 'Looking…' : 'Nothing is called that. Try fewer letters, or another kind.'}
        {...(matches > lines.length && {
          foot: <More shown={lines.length} matches={matches} />,
        })}
      />
    </Flex>
  )
}

function More({ shown, matches }: { shown: number; matches: number }) {
  return (
    <Flex px="2.5" pt="1.5" color="ink3" textStyle="second">
      The first {count(shown)} of {count(matches)}; type more letters.
    </Flex>
  )
}

/** "412 devices", "37 people", or both; of one that holds nothing of what is followed first that. */
function holds({ kind, devices, people }: Audience, follows: Follows): string {
  if (kind === 'device' || kind === 'user') {
    return ''
  }
  const none =
    follows === 'device' && devices === 0 ? 'no device' : follows === 'person' && people === 0 ? 'nobody' : ''
  if (none !== '') {
    return devices + people === 0
      ? 'empty'
      : `${none}, ${devices > 0 ? some(devices, 'device') : some(people, 'person', 'people')}`
  }
  return holdsWords(devices, people)
}
