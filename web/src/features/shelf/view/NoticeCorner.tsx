import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { sentence } from '../../../shared/api'
import { announce } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import { Select, TextField } from '../../../shared/ui/TextField'
import type { ShelfNotice } from '../api/shelf'
import { useAnswerNotice } from '../api/shelf'
import { inOrder, laterChoices } from '../model/notices'
import type { Speaker } from '../state/useTexts'
import { useSpeaker } from '../state/useTexts'

/** What one is told and asked on a computer, in a corner of its shelf; on a narrow screen above all else. */
export function NoticeCorner({ notices, device }: { notices: readonly ShelfNotice[]; device: string }) {
  const { say } = useSpeaker()
  return (
    <Flex
      as="section"
      aria-label={say('notices')}
      aria-live="polite"
      direction="column"
      gap="2.5"
      position={{ base: 'static', md: 'fixed' }}
      right="5"
      bottom="5"
      w={{ base: '100%', md: '380px' }}
      maxH={{ base: 'none', md: '80vh' }}
      overflowY="auto"
      mt={{ base: notices.length > 0 ? '4' : '0', md: '0' }}
      zIndex="docked"
    >
      {inOrder(notices).map(notice => (
        <Card key={notice.notice} notice={notice} device={device} />
      ))}
    </Flex>
  )
}

function Card({ notice, device }: { notice: ShelfNotice; device: string }) {
  const speaker = useSpeaker()
  const { say, day, language } = speaker
  const answer = useAnswerNotice()
  const [later, setLater] = useState(false)
  const asks = notice.time !== undefined
  const says = (said: Parameters<typeof answer.mutate>[0]['said'], words: string) =>
    answer.mutate(
      { device, notice: notice.notice, said },
      {
        onSuccess: () => {
          setLater(false)
          announce(words)
        },
      },
    )
  const text = (notice.words[language] ?? notice.words['en'] ?? '').replaceAll(
    '{time}',
    notice.time === undefined ? '' : day(notice.time, true),
  )
  const choices = laterChoices(notice)
  return (
    <Box
      as="article"
      aria-label={say(`notice.${asks ? 'asks' : 'tells'}`)}
      bg="panel"
      borderWidth="1px"
      borderColor={notice.state === 'counting-down' ? 'trouble' : 'line'}
      borderRadius="lg"
      boxShadow="lg"
      px="4"
      py="3"
    >
      <Box>{text}</Box>
      <Box color="ink2" textStyle="second" mt="0.5">
        {stands(notice, speaker)}
      </Box>
      {notice.said === undefined && (
        <Flex gap="2" mt="2.5" wrap="wrap" align="center">
          {asks ? (
            <>
              <Button
                size="sm"
                variant="chosen"
                loading={answer.isPending}
                onClick={() => says({ answer: 'now' }, say('notice.heard.now'))}
              >
                {say(nowWords(notice))}
              </Button>
              {choices.length > 0 && notice.state === 'shown' && !later && (
                <Button size="sm" aria-expanded={false} onClick={() => setLater(true)}>
                  {say('notice.later')}
                </Button>
              )}
              {later && (
                <PutOff
                  choices={choices}
                  atSignOut={notice.kind !== 'close'}
                  busy={answer.isPending}
                  onPutOff={until =>
                    until === undefined
                      ? says({ answer: 'at-sign-out' }, say('notice.heard.at-sign-out'))
                      : says({ answer: 'later', until }, say('notice.heard.later', { time: day(until, true) }))
                  }
                  onCancel={() => setLater(false)}
                />
              )}
            </>
          ) : (
            <Button size="sm" loading={answer.isPending} onClick={() => says({ answer: 'read' }, '')}>
              {say('notice.read')}
            </Button>
          )}
        </Flex>
      )}
      <Box role="alert" color="trouble" textStyle="second">
        {answer.isError && sentence(answer.error)}
      </Box>
    </Box>
  )
}

function nowWords(notice: ShelfNotice) {
  return notice.kind === 'restart'
    ? 'notice.now.restart'
    : notice.kind === 'sign-out'
      ? 'notice.now.sign-out'
      : 'notice.now.close'
}

/** What was answered, or how often it may still be put off. */
function stands(notice: ShelfNotice, { say, day }: Speaker): string {
  if (notice.said === 'now' || notice.said === 'at-sign-out') {
    return say(`notice.heard.${notice.said}`)
  }
  if (notice.said === 'later' && notice.saidUntil !== undefined) {
    return say('notice.heard.later', { time: day(notice.saidUntil, true) })
  }
  if (notice.state === 'put-off' && notice.until !== undefined) {
    return say('notice.putOff', { time: day(notice.until, true) })
  }
  if (notice.state !== 'shown' || notice.left === undefined) {
    return ''
  }
  return notice.left === 0
    ? say('notice.leftNone')
    : notice.left === 1
      ? say('notice.leftOne')
      : say('notice.left', { n: notice.left })
}

interface PutOffProps {
  choices: ReturnType<typeof laterChoices>
  /** Whether it may wait for one's signing out. */
  atSignOut: boolean
  busy: boolean
  /** Without a time: until one signs out. */
  onPutOff: (until: string | undefined) => void
  onCancel: () => void
}

const AT_SIGN_OUT = 'at-sign-out'
const OWN_TIME = 'own-time'

function PutOff({ choices, atSignOut, busy, onPutOff, onCancel }: PutOffProps) {
  const { say, day } = useSpeaker()
  const [until, setUntil] = useState(choices[0]?.until ?? AT_SIGN_OUT)
  const [own, setOwn] = useState('')
  const last = choices[choices.length - 1]?.until
  const ownTime = Number.isNaN(Date.parse(own)) ? undefined : new Date(own).toISOString()
  const isLate = ownTime !== undefined && last !== undefined && Date.parse(ownTime) > Date.parse(last)
  return (
    <Flex
      as="form"
      gap="2"
      wrap="wrap"
      align="center"
      onSubmit={event => {
        event.preventDefault()
        const chosen = until === OWN_TIME ? ownTime : until
        if (chosen !== undefined && !(until === OWN_TIME && isLate)) {
          onPutOff(chosen === AT_SIGN_OUT ? undefined : chosen)
        }
      }}
    >
      <Select aria-label={say('notice.until')} value={until} autoFocus onChange={event => setUntil(event.target.value)}>
        {choices.map(({ until: at, minutes }) => (
          <option key={at} value={at}>
            {minutes === undefined
              ? say('notice.latest', { time: day(at, true) })
              : minutes < 60
                ? say('notice.inMinutes', { n: minutes })
                : minutes === 60
                  ? say('notice.inAnHour')
                  : say('notice.inHours', { n: minutes / 60 })}
          </option>
        ))}
        {atSignOut && <option value={AT_SIGN_OUT}>{say('notice.atSignOut')}</option>}
        <option value={OWN_TIME}>{say('notice.ownTime')}</option>
      </Select>
      {until === OWN_TIME && (
        <TextField
          label={say('notice.until')}
          labelHidden
          type="datetime-local"
          value={own}
          onChange={setOwn}
          problem={isLate && last !== undefined ? say('notice.tooLate', { time: day(last, true) }) : undefined}
        />
      )}
      <Button size="sm" type="submit" loading={busy}>
        {say('notice.putItOff')}
      </Button>
      <Button size="sm" variant="text" onClick={onCancel}>
        {say('cancel')}
      </Button>
    </Flex>
  )
}
