import { Box, Flex } from '@chakra-ui/react'
import { ArrowDown, ArrowUp, Check } from 'lucide-react'
import type { ReactNode } from 'react'
import { Button } from '../../../shared/ui/Button'
import { stretch } from '../../../shared/format'
import type { Program, Step, Tried } from '../api/catalogue'
import { exitWords } from '../model/record'

const KINDS: Record<Step['kind'], string> = {
  run: 'Run',
  script: 'Run the script',
  copy: 'Copy',
  close: 'Close',
  wait: 'Wait until',
  check: 'Check that',
}

const EXISTING = { 'keep-newer': 'keep newer ones', keep: 'keep existing ones', overwrite: 'overwrite' } as const

/** One step, with what it is, where failure leads, and what became of it on the device it was tried on. */
export function StepLine({
  step,
  number,
  part,
  tried,
  grip,
  onOpen,
  onMove,
}: {
  step: Step
  number: number
  /** The steps it stands among. */
  part: StepPart
  tried: Tried['steps'][number] | undefined
  /** What it is dragged by. */
  grip: ReactNode
  onOpen: () => void
  /** Moves the step at one place to another, both from 0. */
  onMove: (at: number, to: number) => void
}) {
  const out = tried !== undefined && tried.state !== 'runs'
  return (
    <Flex gap="2.5" mb="2">
      <Number n={number} strong={false} />
      <Box
        flex="1"
        minW="0"
        borderWidth="1px"
        borderStyle={out ? 'dashed' : 'solid'}
        borderColor="line"
        borderRadius="lg"
        bg={out ? 'transparent' : 'panel'}
        px="3"
        py="2"
      >
        <Flex gap="2" align="baseline" wrap="wrap">
          <Box flex="1" minW="32" fontWeight="600" color={out ? 'ink3' : 'ink'}>
            {step.text === '' ? KINDS[step.kind] : step.text}
          </Box>
          <Flex gap="0.5" align="center">
            {grip}
            <Small
              label={`Move step ${number} up`}
              disabled={number === part.first}
              onClick={() => onMove(number - 1, number - 2)}
            >
              <ArrowUp size={13} />
            </Small>
            <Small
              label={`Move step ${number} down`}
              disabled={number === part.last}
              onClick={() => onMove(number - 1, number)}
            >
              <ArrowDown size={13} />
            </Small>
            <Button variant="text" size="xs" textStyle="second" onClick={onOpen} aria-label={`Edit step ${number}`}>
              edit
            </Button>
          </Flex>
        </Flex>
        <Box color="ink2" textStyle="second">
          {step.text !== '' && `${KINDS[step.kind]} `}
          <Code>{step.command}</Code>
          {step.kind === 'copy' && (
            <>
              {' '}
              to <Code>{step.to}</Code> · {EXISTING[step.existing ?? 'overwrite']}
            </>
          )}{' '}
          · {stretch(step.limitSeconds)} at most
          {step.asPerson && !step.atSignIn && ' · as the signed-in person'}
        </Box>
        {step.onlyWhere !== undefined && (
          <Box color="ink2" textStyle="second" mt="0.5">
            devices where <Code>{step.onlyWhere}</Code>
          </Box>
        )}
        {step.onlyWith !== '' && (
          <Box color="ink2" textStyle="second" mt="0.5">
            only with <Code>{step.onlyWith}</Code>
          </Box>
        )}
        {step.exitCodes.length > 1 && (
          <Flex gap="1.5" mt="1.5" wrap="wrap">
            {step.exitCodes.map(code => (
              <Box
                key={code.code}
                borderWidth="1px"
                borderBottomWidth="2px"
                borderColor="line"
                borderRadius="sm"
                px="1.5"
                textStyle="fine"
                color="ink2"
              >
                {exitWords(code)}
              </Box>
            ))}
          </Flex>
        )}
        {out && (
          <Box textStyle="second" mt="1" color={tried.state === 'stops' ? 'trouble' : 'ink2'}>
            {tried.state === 'not-reached' ? 'not reached' : `${tried.state}: ${tried.why ?? ''}`}
          </Box>
        )}
      </Box>
      <Otherwise>
        {step.thenTo !== undefined && <Box>on success: go to {leadWords(step.thenTo, part)}</Box>}
        {step.failsTo !== undefined ? (
          `on failure: go to ${leadWords(step.failsTo, part)}`
        ) : step.kind === 'copy' && step.goesOn ? (
          'on failure: continue and log'
        ) : step.goesOn ? (
          'any other code: continue and log'
        ) : (
          <>
            on failure: <Stop>stop</Stop>
            {step.says !== '' && `: “${step.says}”`}
          </>
        )}
      </Otherwise>
    </Flex>
  )
}

/** Steps that are carried out together: the device's, or those at each person's sign-in. */
export interface StepPart {
  /** The numbers of its first and last step. */
  readonly first: number
  readonly last: number
  /** What comes after them, in words. */
  readonly end: string
}

/** Where a step leads: a step's number, or what comes at the end. */
export function leadWords(to: number, part: StepPart): string {
  return to > part.last ? part.end : `step ${to}`
}

/** The last thing a program does: it looks. */
export function LookLine({
  number,
  program,
  seen,
  any,
  onOpen,
}: {
  /** Its number, where it is the last. */
  number: number | undefined
  program: Program
  seen: readonly string[]
  any: boolean
  onOpen: () => void
}) {
  return (
    <Flex as="li" gap="2.5">
      <Number n={number} strong />
      <Box flex="1" minW="0" borderWidth="1px" borderColor="lagoonLine" borderRadius="lg" bg="lagoonSoft" px="3" py="2">
        <Flex gap="2" align="baseline">
          <Box flex="1" fontWeight="600">
            Check that it is {program === 'remove' ? 'removed' : 'installed'}
          </Box>
          <Button variant="text" size="xs" textStyle="second" onClick={onOpen}>
            edit the presence check
          </Button>
        </Flex>
        <Box textStyle="second" color={seen.length === 0 ? 'ochre' : 'ink2'} overflowWrap="anywhere">
          {seen.length === 0 ? 'status unverified: no presence check' : seen.join(any ? ', or ' : ', and ')}
        </Box>
      </Box>
      <Otherwise>
        {seen.length > 0 && (
          <>
            on failure: <Stop>failed</Stop>: “ran, but it is {program === 'remove' ? 'still' : 'not'} installed”
          </>
        )}
      </Otherwise>
    </Flex>
  )
}

function Number({ n, strong }: { n: number | undefined; strong: boolean }) {
  return (
    <Flex
      w="26px"
      h="26px"
      mt="1.5"
      flexShrink="0"
      align="center"
      justify="center"
      borderRadius="50%"
      borderWidth="2px"
      borderColor="lagoon"
      bg={strong ? 'lagoon' : 'panel'}
      color={strong ? 'panel' : 'ink'}
      textStyle="code"
      fontWeight="700"
      position="relative"
      aria-hidden="true"
    >
      {n ?? <Check size={13} />}
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
  children: ReactNode
}) {
  return (
    <Button
      aria-label={label}
      disabled={disabled}
      onClick={onClick}
      size="xs"
      w="22px"
      p="0"
      borderColor="transparent"
      color="ink2"
    >
      {children}
    </Button>
  )
}

function Otherwise({ children }: { children: ReactNode }) {
  return (
    <Flex w="150px" flexShrink="0" pt="2" gap="2" color="ink2" textStyle="second">
      <Box
        w="18px"
        mt="2"
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

function Stop({ children }: { children: ReactNode }) {
  return (
    <Box as="b" color="trouble">
      {children}
    </Box>
  )
}

function Code({ children }: { children: string }) {
  return (
    <Box as="code" textStyle="code" bg="hover" color="ink" borderRadius="sm" px="1" overflowWrap="anywhere">
      {children}
    </Box>
  )
}
