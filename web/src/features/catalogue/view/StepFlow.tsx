import { Box, Flex, Input } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import type { Program, ReleaseRecord, TitlePageData, Tried } from '../api/catalogue'
import { useTrial } from '../api/catalogue'
import { seenBy } from '../model/presence'
import { emptyStep, movedStep, withoutStep, withSteps } from '../model/record'
import type { Editing } from '../model/useEdit'
import type { TitleAddress } from '../model/useTitleAddress'
import { PresenceWindow } from './PresenceWindow'
import { LookLine, StepLine } from './StepLine'
import { StepWindow } from './StepWindow'
import { Select } from '../../../shared/TextField'

interface Props {
  page: TitlePageData
  release: ReleaseRecord
  address: TitleAddress
  editing: Editing
}

const PROGRAMS: readonly (readonly [Program, string])[] = [
  ['install', 'Install'],
  ['remove', 'Remove'],
  ['repair', 'Repair'],
]

/** How it goes on, comes off and is mended: a short program, drawn. */
export function StepFlow({ page, release, address, editing }: Props) {
  const [open, setOpen] = useState<number | 'presence' | undefined>(undefined)
  const variant = release.variants.find(v => v.id === address.variant)
  const trial = useTrial(page.record.id, { ...address, device: address.device })
  const steps = variant?.[address.program] ?? []
  useKeys('The steps', [{ key: 'n', says: 'Add a step', act: () => variant !== undefined && setOpen(steps.length) }])
  if (variant === undefined) {
    return (
      <Box flex="1" bg="panel" borderWidth="1px" borderColor="line" borderRadius="8px" p="18px" color="ink2">
        This release has no variant: drop an installer at the left.
      </Box>
    )
  }
  const move = (at: number, to: number) =>
    editing.save(
      record => withSteps(record, address, address.program, list => movedStep(list, at, to)),
      () => undefined,
    )
  const tried = trial.data
  return (
    <Box
      as="section"
      aria-label="Steps"
      flex="1"
      minW="0"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      p="12px 18px"
      overflowY="auto"
    >
      <Flex align="center" gap="12px" mb="10px" wrap="wrap">
        <Flex role="group" aria-label="Program">
          {PROGRAMS.map(([program, name]) => (
            <Button
              key={program}
              h="28px"
              variant={address.program === program ? 'chosen' : 'plain'}
              aria-pressed={address.program === program}
              onClick={() => address.set({ program })}
            >
              {name}
            </Button>
          ))}
        </Flex>
        <Box flex="1" />
        <Flex align="center" gap="6px" color="ink2" fontSize="13px">
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
          {variant.asPerson ? 'runs as the signed-in person' : 'runs as the system; nobody needs to be signed in'}
        </Flex>
      </Flex>
      {steps.length === 0 && address.program !== 'install' && (
        <Box color="ochre" fontSize="13px" mb="8px">
          {address.program === 'remove'
            ? 'No removal steps yet.'
            : 'No repair steps: it is removed and installed again.'}
        </Box>
      )}
      <Box as="ol" listStyleType="none" position="relative">
        <Box position="absolute" left="12px" top="0" bottom="0" w="2px" bg="lagoonLine" aria-hidden="true" />
        {steps.map((step, i) => (
          <StepLine
            key={`${i} ${step.command}`}
            step={step}
            number={i + 1}
            tried={tried?.steps[i]}
            onOpen={() => setOpen(i)}
            count={steps.length}
            onMove={move}
          />
        ))}
        <LookLine
          number={steps.length + 1}
          program={address.program}
          seen={variant.presence.checks.map(seenBy)}
          any={variant.presence.any}
          onOpen={() => setOpen('presence')}
        />
      </Box>
      <Flex align="center" gap="8px" mt="12px" pt="10px" borderTopWidth="1px" borderColor="line" wrap="wrap">
        <Button onClick={() => setOpen(steps.length)}>
          Add a step <Kbd>N</Kbd>
        </Button>
        <Input
          aria-label="Try on a device"
          placeholder="Try on a device: its name"
          defaultValue={address.device}
          onKeyDown={event => event.key === 'Enter' && address.set({ device: event.currentTarget.value.trim() })}
          onBlur={event => address.set({ device: event.currentTarget.value.trim() })}
          w="210px"
          h="32px"
          px="8px"
          borderColor="line"
        />
        <Box flex="1" color="ink2" fontSize="13px" textAlign="right" role="status">
          {trial.isError ? (
            <Box color="trouble">{sentence(trial.error)}</Box>
          ) : (
            tried !== undefined && <Verdict tried={tried} />
          )}
        </Box>
      </Flex>
      {editing.refusal !== undefined && open === undefined && (
        <Box color="trouble" fontSize="13px" mt="8px" role="alert">
          {editing.refusal}
        </Box>
      )}
      {typeof open === 'number' && (
        <StepWindow
          step={steps[open] ?? emptyStep()}
          isNew={open >= steps.length}
          number={open + 1}
          count={Math.max(steps.length, open + 1)}
          choices={release.choices}
          onClose={() => setOpen(undefined)}
          editing={editing}
          change={step => record =>
            withSteps(record, address, address.program, list =>
              step === undefined
                ? withoutStep(list, open)
                : open >= list.length
                  ? [...list, step]
                  : list.map((one, i) => (i === open ? step : one)),
            )
          }
        />
      )}
      {open === 'presence' && (
        <PresenceWindow
          spot={address}
          presence={variant.presence}
          editing={editing}
          onClose={() => setOpen(undefined)}
        />
      )}
    </Box>
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
