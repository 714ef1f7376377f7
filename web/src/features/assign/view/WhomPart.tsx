import { Box, Flex } from '@chakra-ui/react'
import { memo, useState } from 'react'
import { count, some } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Later } from '../../../shared/ui/Later'
import { Kbd } from '../../../shared/ui/Kbd'
import { RuleField } from '../../../shared/ui/RuleField'
import type { Audience } from '../../audience'
import { AudiencePicker, NewCollectionWindow } from '../../audience'
import type { Tried } from '../api/assign'
import { lastWhom } from '../model/lastWhom'
import { toggled } from '../model/sheet'
import type { Sheet } from '../state/useSheet'
import { Chip } from './Chip'
import { SheetRow } from './SheetRow'

interface Props {
  sheet: Sheet
  /** The part of the map that is chosen, if one is. */
  chosen: { readonly target: string; readonly name: string } | undefined
  tried: Tried | undefined
  problems: readonly string[]
  onList: (part: string) => void
}

type Adding = 'include' | 'exclude' | 'base' | 'rule' | 'collection' | undefined

/** Whom an assignment is for: audiences, less exclusions, narrowed by a rule and by a base. */
export const WhomPart = memo(function WhomPart({ sheet, chosen, tried, problems, onList }: Props) {
  const { assignment } = sheet.written
  const [names, setNames] = useState<Readonly<Record<string, Pick<Audience, 'name' | 'devices' | 'people'>>>>({})
  const include = assignment.include ?? []
  const exclude = assignment.exclude ?? []
  const [adding, setAdding] = useState<Adding>(undefined)
  const open = adding ?? (include.length === 0 ? 'include' : undefined)
  const side = assignment.follows === 'user' ? 'person' : 'device'
  const known = (target: string) =>
    [...(tried?.include ?? []), ...(tried?.exclude ?? [])].find(one => one.target === target) ?? names[target]
  const choose = (audience: Audience) => {
    setNames(before => ({ ...before, [audience.target]: audience }))
    if (open === 'base') {
      sheet.change({ base: audience.target.slice('ou:'.length) })
    } else if (open === 'exclude') {
      sheet.change({ exclude: toggled(exclude, audience.target) })
    } else if (!include.includes(audience.target)) {
      sheet.change({ include: toggled(include, audience.target) })
    }
    setAdding(undefined)
  }
  const addable = chosen !== undefined && !include.includes(chosen.target) ? chosen : undefined
  const addChosen = () => {
    if (addable !== undefined) {
      sheet.change({ include: toggled(include, addable.target) })
    }
  }
  useKeys(
    'Whom',
    addable === undefined ? [] : [{ key: 'w', says: `Add ${addable.name} to those it is for`, act: addChosen }],
  )
  const last = lastWhom()
  const narrowed = tried?.leftOut.find(one => one.by === 'narrowed')
  const outside = tried?.leftOut.find(one => one.by === 'base')
  return (
    <SheetRow heading="Whom" problems={problems}>
      <Flex gap="2" wrap="wrap" align="center">
        {include.map(target => (
          <Chip
            key={target}
            name={known(target)?.name ?? target}
            onRemove={() => sheet.change({ include: toggled(include, target) })}
          >
            <Diamond kind={assignment.intent} size={11} />
            <Box fontWeight="600" truncate>
              {known(target)?.name ?? target}
            </Box>
            <Box color="ink3" whiteSpace="nowrap">
              {holds(known(target), side)}
            </Box>
          </Chip>
        ))}
        {include.length > 0 && open !== 'include' && (
          <Button size="sm" onClick={() => setAdding('include')}>
            Add…
          </Button>
        )}
        {addable !== undefined && (
          <Button size="sm" onClick={addChosen}>
            Add {addable.name} <Kbd>W</Kbd>
          </Button>
        )}
        {exclude.map(target => (
          <Chip
            key={target}
            less
            name={`the exclusion of ${known(target)?.name ?? target}`}
            onRemove={() => sheet.change({ exclude: toggled(exclude, target) })}
          >
            not <b>{known(target)?.name ?? target}</b>
            <Box color="ink3" whiteSpace="nowrap">
              takes {count(tried?.exclude.find(one => one.target === target)?.takes ?? 0)} out
            </Box>
          </Chip>
        ))}
        {assignment.within !== undefined && open !== 'rule' && (
          <Chip less name="the rule" onRemove={() => sheet.change({ within: undefined })}>
            Devices where{' '}
            <Box textStyle="code" truncate maxW="220px">
              {assignment.within}
            </Box>
            {narrowed !== undefined && <Box color="ink3">takes {count(narrowed.n)} out</Box>}
          </Chip>
        )}
        {assignment.base !== undefined && (
          <Chip less name="the base" onRemove={() => sheet.change({ base: undefined })}>
            only below <b>{known(`ou:${assignment.base}`)?.name ?? outside?.name ?? 'an OU'}</b>
            {outside !== undefined && <Box color="ink3">takes {count(outside.n)} out</Box>}
          </Chip>
        )}
      </Flex>
      {open === 'include' && last !== undefined && include.length === 0 && (
        <Button size="sm" mb="1.5" onClick={() => sheet.change({ include: [...last.include], follows: last.follows })}>
          Again for {last.words}
        </Button>
      )}
      {(open === 'include' || open === 'exclude' || open === 'base') && (
        <Box mt="2">
          <AudiencePicker
            key={`${open} ${side}`}
            autoFocus
            label={open === 'include' ? 'Add whom it is for' : open === 'exclude' ? 'Exclude' : 'Only below this OU'}
            follows={open === 'exclude' ? 'either' : open === 'base' ? 'device' : side}
            {...(open === 'base' && { only: ['ou'] as const })}
            onChoose={choose}
          />
        </Box>
      )}
      <Later open={open === 'collection'}>
        {open === 'collection' && (
          <NewCollectionWindow
            onClose={() => setAdding(undefined)}
            onMade={made => {
              setNames(before => ({ ...before, [made.target]: { name: made.name, devices: 0, people: 0 } }))
              sheet.change({ include: [...include, made.target] })
              setAdding(undefined)
            }}
          />
        )}
      </Later>
      {open === 'rule' && (
        <Box mt="2">
          <RuleField
            value={assignment.within ?? ''}
            rows={2}
            onChange={text => sheet.change({ within: text === '' ? undefined : text })}
          />
        </Box>
      )}
      <Flex gap="1" mt="1" wrap="wrap" ml="-1">
        <Button variant="text" size="xs" onClick={() => setAdding(open === 'exclude' ? undefined : 'exclude')}>
          exclude…
        </Button>
        <Button variant="text" size="xs" onClick={() => setAdding(open === 'rule' ? undefined : 'rule')}>
          {open === 'rule' ? 'done with the rule' : 'Devices where…'}
        </Button>
        <Button variant="text" size="xs" onClick={() => setAdding(open === 'base' ? undefined : 'base')}>
          only below…
        </Button>
        {side === 'device' && (
          <Button variant="text" size="xs" onClick={() => setAdding('collection')}>
            new collection…
          </Button>
        )}
        {open !== undefined && include.length > 0 && open !== 'rule' && (
          <Button variant="text" size="xs" onClick={() => setAdding(undefined)}>
            close
          </Button>
        )}
      </Flex>
      {tried !== undefined && include.length > 0 && (
        <Box color="ink2" textStyle="second">
          {some(tried.devices, 'device')}, used by {some(tried.people, 'person', 'people')}
          {tried.devices > 0 && (
            <>
              {' · '}
              <Button variant="text" size="inline" onClick={() => onList('served')}>
                list
              </Button>
            </>
          )}
        </Box>
      )}
    </SheetRow>
  )
})

/** "171 devices", or for one that follows people "37 people". */
function holds(known: Pick<Audience, 'devices' | 'people'> | undefined, side: 'device' | 'person'): string {
  if (known === undefined) {
    return ''
  }
  return side === 'device' ? some(known.devices, 'device') : some(known.people, 'person', 'people')
}
