import { Box, Flex, Skeleton } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useEffect, useState } from 'react'
import { sentence } from '../api'
import { failure } from '../failure'
import { Button } from './Button'
import { Notice } from './Notice'

/** What is known of something that was asked for. */
export interface Asked<T> {
  readonly data: T | undefined
  readonly error: unknown
  readonly isError: boolean
  readonly isFetching: boolean
  readonly refetch: () => unknown
}

interface Props<T> {
  query: Asked<T>
  /** What is said where there is nothing to show: "The list cannot be shown". */
  failed: string
  /** Whether it is the whole page, which has no heading until it has come. */
  alone?: boolean
  /** What stands there until it has come; lines when not given. */
  skeleton?: ReactNode
  /** What is offered besides trying again. */
  remedy?: ReactNode
  children: (data: T) => ReactNode
}

const PATIENCE_MS = 300

/**
 * Shows what was asked for, or how far that is. What has been loaded stays when asking again fails, with a line that says so; a skeleton comes
 * after {@link PATIENCE_MS}, since one that flashes by is worse than none.
 */
export function QueryState<T>({ query, failed, alone = false, skeleton, remedy, children }: Props<T>) {
  const why = failure(query)
  if (why !== undefined) {
    return (
      <Notice heading={failed} alone={alone}>
        {sentence(why)} {remedy}
        <Box mt="3">
          <Retry query={query} />
        </Box>
      </Notice>
    )
  }
  if (query.data === undefined) {
    return <Loading>{skeleton ?? <Lines />}</Loading>
  }
  return (
    <>
      {query.isError && <Stale query={query} />}
      {children(query.data)}
    </>
  )
}

function Retry({ query }: { query: Asked<unknown> }) {
  return (
    <Button loading={query.isFetching} onClick={() => void query.refetch()}>
      Try again
    </Button>
  )
}

function Stale({ query }: { query: Asked<unknown> }) {
  return (
    <Flex role="status" align="center" gap="2.5" px="3" py="1" color="ochre" textStyle="compact">
      <Box flex="1">Shown as it was; it could not be loaded again. {sentence(query.error)}</Box>
      <Retry query={query} />
    </Flex>
  )
}

function Loading({ children }: { children: ReactNode }) {
  const [late, setLate] = useState(false)
  useEffect(() => {
    const timer = window.setTimeout(() => setLate(true), PATIENCE_MS)
    return () => window.clearTimeout(timer)
  }, [])
  return (
    <Box role="status" aria-busy="true" aria-label="Loading">
      {late && children}
    </Box>
  )
}

/** Lines where text will stand. */
export function Lines({ count = 6 }: { count?: number }) {
  return (
    <Flex direction="column" gap="3" p="4">
      {Array.from({ length: count }, (_, i) => (
        <Skeleton key={i} h="4" w={i % 3 === 2 ? '60%' : '100%'} bg="bandNone" />
      ))}
    </Flex>
  )
}
