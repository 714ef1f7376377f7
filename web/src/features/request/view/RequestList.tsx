import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { sentence } from '../../../shared/api'
import { date, fromNow, fullInstant } from '../../../shared/format'
import { announce } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import { useNow } from '../../../shared/useNow'
import type { RequestRow } from '../api/requests'
import { useAnswer } from '../api/requests'
import { requestWords } from '../model/words'

const AnswerWindow = lazy(() => import('./AnswerWindow').then(part => ({ default: part.AnswerWindow })))

interface Props {
  rows: readonly RequestRow[]
  /** Whether it is clear whose they are, or what for. */
  without?: 'person' | 'title'
}

/** What people have asked for, with what can be answered. */
export function RequestList({ rows, without }: Props) {
  const [answering, setAnswering] = useState<{ row: RequestRow; agreed: boolean } | undefined>(undefined)
  return (
    <>
      <Box as="ul" listStyleType="none">
        {rows.map(row => (
          <Row key={row.id} row={row} without={without} onAnswer={agreed => setAnswering({ row, agreed })} />
        ))}
      </Box>
      {answering !== undefined && (
        <Suspense fallback={null}>
          <AnswerWindow {...answering} onClose={() => setAnswering(undefined)} />
        </Suspense>
      )}
    </>
  )
}

interface RowProps {
  row: RequestRow
  without: Props['without']
  onAnswer: (agreed: boolean) => void
}

function Row({ row, without, onAnswer }: RowProps) {
  const now = useNow()
  const answer = useAnswer()
  const agree = () =>
    answer.mutate(
      { id: row.id, agreed: true },
      { onSuccess: () => announce(`Agreed: ${row.titleName} for ${row.byName}.`) },
    )
  return (
    <Flex
      as="li"
      aria-label={`${row.byName}: ${row.titleName}`}
      align="center"
      gap="3"
      py="2"
      wrap="wrap"
      borderBottomWidth="1px"
      borderColor="line"
      css={{ '& a': { textDecoration: 'underline' } }}
    >
      <Box flex="1" minW="60">
        <Box>
          {without !== 'person' && (
            <>
              <Link to={`/people/${encodeURIComponent(row.by)}`}>{row.byName}</Link>
              {' · '}
            </>
          )}
          {without !== 'title' && (
            <b>
              <Link to={`/catalogue/${encodeURIComponent(row.title)}`}>{row.titleName}</Link>
            </b>
          )}
          {without !== 'title' && ' '}
          on <Link to={`/fleet/${encodeURIComponent(row.device)}`}>{row.deviceName}</Link>
        </Box>
        <Box color="ink2" textStyle="second">
          {row.why !== undefined && `“${row.why}” · `}
          <span title={fullInstant(row.at)}>{fromNow(row.at, now)}</span>
          {row.state !== 'asked' && ` · ${requestWords(row, instant => date(instant, now))}`}
        </Box>
        <Box role="alert" color="trouble" textStyle="second">
          {answer.isError && sentence(answer.error)}
        </Box>
      </Box>
      {row.state === 'asked' && (
        <Flex gap="2">
          <Button variant="chosen" size="sm" loading={answer.isPending} onClick={agree}>
            Agree
          </Button>
          <Button size="sm" onClick={() => onAnswer(true)}>
            Agree until…
          </Button>
          <Button size="sm" onClick={() => onAnswer(false)}>
            Refuse…
          </Button>
        </Flex>
      )}
    </Flex>
  )
}
