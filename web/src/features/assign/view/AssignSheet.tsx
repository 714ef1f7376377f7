import { Box, Flex, Skeleton } from '@chakra-ui/react'
import { lazy, memo, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { isRefusal, sentence } from '../../../shared/api'
import { useKeys } from '../../../shared/keys'
import { some } from '../../../shared/format'
import { intentVerb } from '../../../shared/outcomes'
import { useSettled } from '../../../shared/useSettled'
import { Button } from '../../../shared/ui/Button'
import { Later } from '../../../shared/ui/Later'
import { side } from '../../../shared/ui/Page'
import { Panel } from '../../../shared/ui/Panel'
import { usePutAssignment } from '../../draft'
import type { WrittenBody } from '../api/assign'
import { bodyOf, useAssignmentTrial } from '../api/assign'
import { keepWhom } from '../model/lastWhom'
import type { Opening, Row } from '../model/sheet'
import { missing, rowOf } from '../model/sheet'
import { useSheet } from '../state/useSheet'
import type { Sheet } from '../state/useSheet'
import { OtherwisePart } from './OtherwisePart'
import { SheetFoot } from './SheetFoot'
import { WavesPart } from './WavesPart'
import { WhatPart } from './WhatPart'
import { WhenPart } from './WhenPart'
import { WhomPart } from './WhomPart'

const TriedWindow = lazy(() => import('./TriedWindow').then(part => ({ default: part.TriedWindow })))
const EndWindow = lazy(() => import('./EndWindow').then(part => ({ default: part.EndWindow })))

interface Props {
  /** The assignment that is edited; nothing for a new one. */
  id: string | undefined
  opening: Opening
  /** What the title or kit is called. */
  name: string
  /** The part of the map that is chosen, if one is. */
  chosen?: { readonly target: string; readonly name: string } | undefined
  /** Is told what is written whenever the writing pauses, as the server takes it; nothing while it is not whole, and at the end. */
  onWritten: (written: WrittenBody | undefined) => void
  onClose: () => void
}

const PAUSE_MS = 100

/** Where an assignment is written: whom, what, when, in which waves. It says all the while what it alone would do. */
export const AssignSheet = memo(function AssignSheet({ id, opening, name, chosen, onWritten, onClose }: Props) {
  const sheet = useSheet(id, opening)
  return (
    <Panel aria-label="Assignment" column {...side('702px')} overflow="hidden">
      {sheet === undefined ? (
        <Skeleton h="full" />
      ) : (
        <Content sheet={sheet} name={name} chosen={chosen} onWritten={onWritten} onClose={onClose} />
      )}
    </Panel>
  )
})

type ContentProps = Pick<Props, 'name' | 'chosen' | 'onWritten' | 'onClose'> & { sheet: Sheet }

function Content({ sheet, name, chosen, onWritten, onClose }: ContentProps) {
  const { assignment } = sheet.written
  const incomplete = missing(assignment)
  const settled = useSettled(sheet.written, PAUSE_MS)
  const trial = useAssignmentTrial(incomplete === undefined ? settled : undefined)
  const put = usePutAssignment()
  const whole = incomplete === undefined && !trial.isError
  useEffect(() => onWritten(whole ? bodyOf(settled) : undefined), [onWritten, whole, settled])
  useEffect(() => () => onWritten(undefined), [onWritten])
  const [listed, setListed] = useState<string | undefined>(undefined)
  const [ending, setEnding] = useState(false)
  const tried = incomplete === undefined ? trial.data : undefined
  const refused = put.error ?? (trial.isError ? trial.error : null)
  const problems = useMemo(() => problemsOf(refused), [refused])
  // The figures first: they are waited for.
  const shown = useDeferredValue(tried)
  const title = assignment.subject.startsWith('title:') ? assignment.subject.slice('title:'.length) : undefined
  const send = (document: typeof assignment) =>
    put.mutate(bodyOf({ ...sheet.written, assignment: document }), {
      onSuccess: () => {
        sheet.forget()
        if ((document.include ?? []).length > 0) {
          const words = (tried?.include ?? []).map(one => one.name).join(', ')
          keepWhom({ include: document.include ?? [], follows: document.follows, words })
        }
        onClose()
      },
    })
  const keep = () => {
    if (incomplete === undefined && !put.isPending) {
      send(assignment)
    }
  }
  const cancel = () => {
    sheet.forget()
    onClose()
  }
  useKeys('This edit', [{ key: 'ctrl+Enter', says: 'Keep it in the draft', act: keep, whileTyping: true }])
  const also = sheet.written.also?.length ?? 0
  const paused = assignment.state === 'paused'
  return (
    <Flex
      direction="column"
      h="full"
      minH="0"
      onKeyDown={event => {
        // Windows over the sheet have an Escape of their own.
        const own = event.target instanceof Node && event.currentTarget.contains(event.target)
        if (event.key === 'Escape' && own && !event.defaultPrevented) {
          event.preventDefault()
          cancel()
        }
      }}
    >
      <Flex align="baseline" gap="3" px="4.5" py="3" wrap="wrap">
        <Box as="h2" textStyle="heading" flex="1" minW="0">
          {intentVerb(assignment.intent)} {name}
          {also > 0 && ` and ${some(also, 'more title')}`}
          {words(tried) !== '' && ` for ${words(tried)}`}
        </Box>
        {!sheet.isNew && (
          <Button variant="text" size="xs" onClick={() => sheet.change({ state: paused ? undefined : 'paused' })}>
            {paused ? 'resume' : 'pause'}
          </Button>
        )}
        <Box color="ink2" textStyle="second">
          {paused
            ? 'paused: it decides for nobody, and removes nothing'
            : `${sheet.isNew ? 'new · ' : ''}nothing happens before you publish`}
        </Box>
      </Flex>
      <Box flex="1" minH="0" overflowY="auto">
        <WhomPart sheet={sheet} chosen={chosen} tried={shown} problems={problems.whom} onList={setListed} />
        <WhatPart sheet={sheet} title={title} name={name} tried={shown} problems={problems.what} />
        <WhenPart sheet={sheet} tried={shown} problems={problems.when} onList={setListed} />
        <WavesPart sheet={sheet} tried={shown} problems={problems.waves} />
        <OtherwisePart sheet={sheet} problems={problems.otherwise} />
      </Box>
      <SheetFoot
        sheet={sheet}
        tried={tried}
        missing={incomplete}
        trouble={refused === null ? undefined : sentence(refused)}
        fresh={settled === sheet.written && !trial.isPlaceholderData}
        keeping={put.isPending}
        onList={setListed}
        onKeep={keep}
        onCancel={cancel}
        onEnd={sheet.isNew ? undefined : () => setEnding(true)}
      />
      <Later open={listed !== undefined}>
        {listed !== undefined && (
          <TriedWindow
            written={settled}
            part={listed}
            heading={`Devices of this assignment of ${name}`}
            onClose={() => setListed(undefined)}
          />
        )}
      </Later>
      <Later open={ending}>
        {ending && (
          <EndWindow
            name={name}
            busy={put.isPending}
            trouble={put.error === null ? undefined : sentence(put.error)}
            onClose={() => setEnding(false)}
            onEnd={leaving => send({ ...assignment, state: 'retired', leaving })}
          />
        )}
      </Later>
    </Flex>
  )
}

type Problems = Record<Row, readonly string[]>

/** What is wrong with it, by the part of the sheet that it is about. */
function problemsOf(refused: unknown): Problems {
  const problems: Record<Row, string[]> = { whom: [], what: [], when: [], waves: [], otherwise: [] }
  for (const one of isRefusal(refused) ? refused.problems : []) {
    problems[rowOf(one.place)].push(one.sentence)
  }
  return problems
}

/** The names of those it is for, as far as they are known. */
function words(tried: { readonly include: readonly { readonly name: string }[] } | undefined): string {
  const names = (tried?.include ?? []).map(one => one.name)
  return names.length <= 2 ? names.join(' and ') : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
}
