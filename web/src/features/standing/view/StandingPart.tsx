import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { sentence, withQuery } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { count, moment } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { StackBar } from '../../../shared/ui/StackBar'
import type { StateCount } from '../api/states'
import { useStates } from '../api/states'
import { counted, expectationWords, inGroups } from '../model/states'

const MINUTE_MS = 60_000

interface Props {
  title: string
  /** In it and below; nothing for everywhere. */
  ou?: string
}

/** The same under a heading of its own. */
export function StandingPart(props: Props) {
  return (
    <Box as="section" aria-label="How it stands">
      <Box as="h3" fontWeight="700" mb="1.5">
        How it stands
      </Box>
      <Standing {...props} />
    </Box>
  )
}

/** How far what is assigned of a title has come: each unit is in one state, and each figure opens into its devices. */
export function Standing({ title, ou }: Props) {
  const counts = useStates(title, ou)
  const now = useNow(MINUTE_MS)
  const failed = failure(counts)
  if (failed !== undefined) {
    return (
      <Box color="trouble" textStyle="second">
        How it stands cannot be shown: {sentence(failed)}
      </Box>
    )
  }
  const states = counts.data?.states
  if (states === undefined) {
    return null
  }
  const groups = inGroups(states)
  const whole = groups.reduce((sum, group) => sum + group.n, 0)
  return (
    <Box opacity={counts.isPlaceholderData ? 0.5 : 1} aria-busy={counts.isPlaceholderData}>
      {whole === 0 ? (
        <Box color="ink2" textStyle="second">
          It is assigned to nobody here.
        </Box>
      ) : (
        <>
          <StackBar
            whole={whole}
            words={groups.map(group => `${count(group.n)} ${group.words}`).join(', ')}
            parts={groups.map(({ id, n, colour }) => ({ id, n, colour }))}
          />
          <Box as="ul" listStyleType="none" mt="1.5" textStyle="compact" color="ink2">
            {groups.map(group =>
              group.states.map(state => (
                <Line
                  key={state.state}
                  state={state}
                  colour={group.colour}
                  list={withQuery('/fleet', { title, stands: state.state, ou })}
                />
              )),
            )}
          </Box>
          {counts.data?.expected !== undefined && (
            <Box textStyle="second" color="ink2" mt="1.5">
              {expectationWords(counts.data.expected, at => moment(at, now))}
            </Box>
          )}
        </>
      )}
    </Box>
  )
}

function Line({ state, colour, list }: { state: StateCount; colour: string; list: string }) {
  return (
    <Flex as="li" align="center" gap="2" css={{ '& a:hover': { textDecoration: 'underline' } }}>
      <Box w="8px" h="8px" borderRadius="full" bg={colour} flex="none" aria-hidden="true" />
      <Link to={list}>
        <b>{count(state.count)}</b> {counted(state)}
      </Link>
    </Flex>
  )
}
