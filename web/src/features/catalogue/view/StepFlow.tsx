import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Panel } from '../../../shared/ui/Panel'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { Kbd } from '../../../shared/ui/Kbd'
import { useKeys } from '../../../shared/keys'
import type { Program, ReleaseRecord, TitlePageData, Tried } from '../api/catalogue'
import { useTrial } from '../api/catalogue'
import { seenBy } from '../model/presence'
import { deviceSteps, emptyStep, movedStep, withoutStep, withStep, withSteps } from '../model/record'
import type { Editing } from '../state/useEdit'
import type { TitleAddress } from '../state/useTitleAddress'
import type { StepPart } from './StepLine'
import { LookLine, StepLine } from './StepLine'
import { AudiencePicker } from '../../audience'
import { Segments } from '../../../shared/ui/Segments'
import { SortableList } from '../../../shared/ui/SortableList'
import { Select } from '../../../shared/ui/TextField'

const StepWindow = lazy(() => import('./StepWindow').then(part => ({ default: part.StepWindow })))
const PresenceWindow = lazy(() => import('./PresenceWindow').then(part => ({ default: part.PresenceWindow })))

interface Props {
  page: TitlePageData
  release: ReleaseRecord
  address: TitleAddress
  editing: Editing
}

const PROGRAMS: readonly { readonly value: Program; readonly words: string }[] = [
  { value: 'install', words: 'Install' },
  { value: 'remove', words: 'Remove' },
  { value: 'repair', words: 'Repair' },
]
const STEP = 'step:'

/** How it goes on, comes off and is mended: a short program, drawn. */
export function StepFlow({ page, release, address, editing }: Props) {
  const { window, open: setOpen } = address
  const open = window?.startsWith(STEP) === true ? Number(window.slice(STEP.length)) : undefined
  const variant = release.variants.find(v => v.id === address.variant)
  const trial = useTrial(page.record.id, { ...address, device: address.device })
  const steps = variant?.[address.program] ?? []
  useKeys('The steps', [
    { key: 'n', says: 'Add a step', act: () => variant !== undefined && setOpen(`${STEP}${steps.length}`) },
  ])
  if (variant === undefined) {
    return (
      <Panel flex="1" p="4.5" color="ink2">
        This release has no variant: drop an installer at the left.
      </Panel>
    )
  }
  const move = (at: number, to: number) =>
    editing.save(
      record => withSteps(record, address, address.program, list => movedStep(list, at, to)),
      () => undefined,
    )
  const tried = trial.data
  const own = deviceSteps(steps)
  const restPart: StepPart = { first: own + 1, last: steps.length, end: 'the end' }
  const list = (from: number, to: number, part: StepPart) => (
    <SortableList
      items={steps
        .slice(from, to)
        .map((step, i) => ({ id: `${from + i} ${step.command}`, name: `step ${from + i + 1}`, step }))}
      onMove={(at, target) => move(from + at, from + target)}
    >
      {({ step }, i, grip) => (
        <StepLine
          step={step}
          number={from + i + 1}
          tried={tried?.steps[from + i]}
          grip={grip}
          onOpen={() => setOpen(`${STEP}${from + i}`)}
          part={part}
          onMove={move}
        />
      )}
    </SortableList>
  )
  return (
    <Panel aria-label="Steps" flex="1" minW="0" padded overflowY="auto">
      <Flex align="center" gap="3" mb="2.5" wrap="wrap">
        <Segments
          label="Program"
          value={address.program}
          choices={PROGRAMS}
          onChange={program => address.set({ program })}
        />
        <Box flex="1" />
        <Flex align="center" gap="1.5" color="ink2" textStyle="compact">
          variant
          {release.variants.length > 1 ? (
            <Select
              aria-label="Variant"
              h="26px"
              value={variant.id}
              onChange={event => address.set({ variant: event.target.value })}
            >
              {release.variants.map(v => (
                <option key={v.id}>{v.id}</option>
              ))}
            </Select>
          ) : (
            <b>{variant.id}</b>
          )}
          {release.variants.length > 1 && `of ${release.variants.length}`} ·{' '}
          {page.record.scope === 'user'
            ? 'runs as each person, while they are signed in'
            : variant.asPerson
              ? 'runs as the signed-in person'
              : 'runs as the system; nobody needs to be signed in'}
        </Flex>
      </Flex>
      {steps.length === 0 && address.program !== 'install' && (
        <Box color="ochre" textStyle="compact" mb="2">
          {address.program === 'remove'
            ? 'No removal steps yet.'
            : 'No repair steps: it is removed and installed again.'}
        </Box>
      )}
      <Box as="ol" listStyleType="none" position="relative" data-list="">
        <Box position="absolute" left="12px" top="0" bottom="0" w="2px" bg="lagoonLine" aria-hidden="true" />
        {list(0, own, { first: 1, last: own, end: 'the presence check' })}
        <LookLine
          number={own < steps.length ? undefined : own + 1}
          program={address.program}
          seen={variant.presence.checks.map(seenBy)}
          any={variant.presence.any}
          onOpen={() => setOpen('presence')}
        />
        {own < steps.length && (
          <>
            <Box as="li" bg="panel" position="relative" py="2" fontWeight="700" textStyle="compact">
              Then for each person, at their next sign-in
            </Box>
            {list(own, steps.length, restPart)}
          </>
        )}
      </Box>
      <Flex align="center" gap="2" mt="3" pt="2.5" borderTopWidth="1px" borderColor="line" wrap="wrap">
        <Button onClick={() => setOpen(`${STEP}${steps.length}`)}>
          Add a step <Kbd>N</Kbd>
        </Button>
        <Box w="240px">
          <AudiencePicker
            label="Try on a device"
            follows="device"
            only={['device']}
            first="device"
            onChoose={device => address.set({ device: device.name })}
          />
        </Box>
        {address.device !== '' && (
          <Button variant="text" onClick={() => address.set({ device: '' })}>
            End the trial
          </Button>
        )}
        <Box flex="1" color="ink2" textStyle="compact" textAlign="right" role="status">
          {trial.isError ? (
            <Box color="trouble">{sentence(trial.error)}</Box>
          ) : (
            tried !== undefined && <Verdict tried={tried} />
          )}
        </Box>
      </Flex>
      {editing.refusal !== undefined && window === undefined && (
        <Box color="trouble" textStyle="compact" mt="2" role="alert">
          {editing.refusal}
        </Box>
      )}
      {open !== undefined && Number.isInteger(open) && open <= steps.length && (
        <Suspense fallback={null}>
          <StepWindow
            step={steps[open] ?? emptyStep()}
            isNew={open >= steps.length}
            number={open + 1}
            part={
              steps[open]?.atSignIn === true
                ? restPart
                : { first: 1, last: Math.max(own, open + 1), end: 'the presence check' }
            }
            choices={release.choices}
            forDevice={page.record.scope === 'device'}
            onClose={() => setOpen(undefined)}
            editing={editing}
            change={step => record =>
              withSteps(record, address, address.program, list =>
                step === undefined ? withoutStep(list, open) : withStep(list, open, step),
              )
            }
          />
        </Suspense>
      )}
      {window === 'presence' && (
        <Suspense fallback={null}>
          <PresenceWindow
            spot={address}
            presence={variant.presence}
            editing={editing}
            onClose={() => setOpen(undefined)}
          />
        </Suspense>
      )}
    </Panel>
  )
}

function Verdict({ tried }: { tried: Tried }) {
  const runs = tried.steps.filter(step => step.state === 'runs').length
  return (
    <>
      tried on <b>{tried.name}</b>: {runs} of {tried.steps.length} would run
      {!tried.fits && ', but this variant does not fit it'}
    </>
  )
}
