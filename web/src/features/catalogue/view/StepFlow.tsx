import { Box, Flex, Input } from '@chakra-ui/react'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { stretch } from '../../../shared/format'
import type { Program, ReleaseRecord, Step, TitlePageData, Tried } from '../api/catalogue'
import { useTrial } from '../api/catalogue'
import { seenBy } from '../model/presence'
import { emptyStep, exitWords, moved, withSteps } from '../model/record'
import type { Editing } from '../model/useEdit'
import type { TitleAddress } from '../model/useTitleAddress'
import { PresenceWindow } from './PresenceWindow'
import { StepWindow } from './StepWindow'
import { Select } from './TextField'

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
  const move = (at: number, by: number) =>
    editing.save(
      record => withSteps(record, address, address.program, list => moved(list, at, by)),
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
          {variant.asPerson ? 'as the person signed in' : 'as the device · nobody needs to be signed in'}
        </Flex>
      </Flex>
      {steps.length === 0 && address.program !== 'install' && (
        <Box color="ochre" fontSize="13px" mb="8px">
          {address.program === 'remove'
            ? 'Nothing takes it off yet.'
            : 'There is no repair: it is taken off and put on.'}
        </Box>
      )}
      <Box as="ol" listStyleType="none" position="relative">
        <Box position="absolute" left="12px" top="0" bottom="0" w="2px" bg="lagoonLine" aria-hidden="true" />
        {steps.map((step, i) => (
          <StepLine
            key={`${i} ${step.command}`}
            step={step}
            number={i + 1}
            last={i === steps.length - 1}
            tried={tried?.steps[i]}
            onOpen={() => setOpen(i)}
            onMove={by => move(i, by)}
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
          onClose={() => setOpen(undefined)}
          editing={editing}
          change={step => record =>
            withSteps(record, address, address.program, list =>
              step === undefined
                ? list.filter((_, i) => i !== open)
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

const KINDS: Record<Step['kind'], string> = {
  run: 'Run',
  script: 'Run the script',
  copy: 'Copy',
  wait: 'Wait until',
  check: 'Check that',
}

const EXISTING = { 'keep-newer': 'keep newer ones', keep: 'keep what is there', overwrite: 'write over' } as const

function StepLine({
  step,
  number,
  last,
  tried,
  onOpen,
  onMove,
}: {
  step: Step
  number: number
  last: boolean
  tried: Tried['steps'][number] | undefined
  onOpen: () => void
  onMove: (by: number) => void
}) {
  const out = tried !== undefined && tried.state !== 'runs'
  return (
    <Flex as="li" gap="10px" mb="9px">
      <Number n={number} strong={false} />
      <Box
        flex="1"
        minW="0"
        borderWidth="1px"
        borderStyle={out ? 'dashed' : 'solid'}
        borderColor="line"
        borderRadius="7px"
        bg={out ? 'transparent' : 'panel'}
        px="12px"
        py="7px"
      >
        <Flex gap="8px" align="baseline">
          <Box flex="1" minW="0" fontWeight="600" color={out ? 'ink3' : 'ink'}>
            {step.text === '' ? KINDS[step.kind] : step.text}
          </Box>
          <Flex gap="2px">
            <Small label={`Move step ${number} up`} disabled={number === 1} onClick={() => onMove(-1)}>
              <ArrowUp size={13} />
            </Small>
            <Small label={`Move step ${number} down`} disabled={last} onClick={() => onMove(1)}>
              <ArrowDown size={13} />
            </Small>
            <Button variant="text" h="22px" fontSize="12.3px" onClick={onOpen} aria-label={`Edit step ${number}`}>
              edit
            </Button>
          </Flex>
        </Flex>
        <Box color="ink2" fontSize="12.3px">
          {step.text !== '' && `${KINDS[step.kind]} `}
          <Code>{step.command}</Code>
          {step.kind === 'copy' && (
            <>
              {' '}
              to <Code>{step.to}</Code> · {EXISTING[step.existing ?? 'overwrite']}
            </>
          )}{' '}
          · {stretch(step.limitSeconds)} at most
          {step.asPerson && ' · as the person'}
        </Box>
        {step.onlyWhere !== undefined && (
          <Box color="ink2" fontSize="12.3px" mt="2px">
            only where <Code>{step.onlyWhere}</Code>
          </Box>
        )}
        {step.exitCodes.length > 1 && (
          <Flex gap="6px" mt="5px" wrap="wrap">
            {step.exitCodes.map(code => (
              <Box
                key={code.code}
                borderWidth="1px"
                borderBottomWidth="2px"
                borderColor="line"
                borderRadius="4px"
                px="5px"
                fontSize="11.5px"
                color="ink2"
              >
                {exitWords(code)}
              </Box>
            ))}
          </Flex>
        )}
        {out && (
          <Box fontSize="12.3px" mt="3px" color={tried.state === 'stops' ? 'trouble' : 'ink2'}>
            {tried.state === 'not-reached' ? 'not reached' : `${tried.state}: ${tried.why ?? ''}`}
          </Box>
        )}
      </Box>
      <Otherwise>
        {step.kind === 'copy' && step.goesOn ? (
          'else go on, and say so'
        ) : step.goesOn ? (
          'any other code: go on'
        ) : (
          <>
            else <Stop>stop</Stop>
            {step.says !== '' && `: “${step.says}”`}
          </>
        )}
      </Otherwise>
    </Flex>
  )
}

function LookLine({
  number,
  program,
  seen,
  any,
  onOpen,
}: {
  number: number
  program: Program
  seen: readonly string[]
  any: boolean
  onOpen: () => void
}) {
  return (
    <Flex as="li" gap="10px">
      <Number n={number} strong />
      <Box
        flex="1"
        minW="0"
        borderWidth="1px"
        borderColor="lagoonLine"
        borderRadius="7px"
        bg="lagoonSoft"
        px="12px"
        py="7px"
      >
        <Flex gap="8px" align="baseline">
          <Box flex="1" fontWeight="600">
            Look whether it is {program === 'remove' ? 'gone' : 'there'}
          </Box>
          <Button variant="text" h="22px" fontSize="12.3px" onClick={onOpen}>
            edit the presence check
          </Button>
        </Flex>
        <Box fontSize="12.3px" color={seen.length === 0 ? 'ochre' : 'ink2'} overflowWrap="anywhere">
          {seen.length === 0 ? 'cannot be seen: its status is a guess' : seen.join(any ? ', or ' : ', and ')}
        </Box>
      </Box>
      <Otherwise>
        {seen.length > 0 && (
          <>
            else <Stop>failed</Stop>: “ran, but is not {program === 'remove' ? 'gone' : 'there'}”
          </>
        )}
      </Otherwise>
    </Flex>
  )
}

function Number({ n, strong }: { n: number; strong: boolean }) {
  return (
    <Flex
      w="26px"
      h="26px"
      mt="5px"
      flexShrink="0"
      align="center"
      justify="center"
      borderRadius="50%"
      borderWidth="2px"
      borderColor="lagoon"
      bg={strong ? 'lagoon' : 'panel'}
      color={strong ? 'panel' : 'ink'}
      fontSize="12px"
      fontWeight="700"
      position="relative"
      aria-hidden="true"
    >
      {n}
    </Flex>
  )
}

function Small({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string
  disabled: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <Button
      aria-label={label}
      disabled={disabled}
      onClick={onClick}
      h="22px"
      w="22px"
      p="0"
      borderColor="transparent"
      color="ink2"
    >
      {children}
    </Button>
  )
}

function Otherwise({ children }: { children: React.ReactNode }) {
  return (
    <Flex w="150px" flexShrink="0" pt="9px" gap="8px" color="ink2" fontSize="12.3px">
      <Box
        w="18px"
        mt="8px"
        borderTopWidth="2px"
        borderStyle="dashed"
        borderColor="line"
        flexShrink="0"
        aria-hidden="true"
      />
      <Box>{children}</Box>
    </Flex>
  )
}

function Stop({ children }: { children: React.ReactNode }) {
  return (
    <Box as="b" color="trouble">
      {children}
    </Box>
  )
}

function Code({ children }: { children: string }) {
  return (
    <Box
      as="code"
      fontFamily="mono"
      fontSize="12px"
      bg="hover"
      color="ink"
      borderRadius="3px"
      px="4px"
      overflowWrap="anywhere"
    >
      {children}
    </Box>
  )
}
