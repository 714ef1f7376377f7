import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { sentence } from '../../../shared/api'
import { bytes } from '../../../shared/format'
import { announce } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import { Progress } from '../../../shared/ui/Progress'
import { TitleIcon } from '../../../shared/ui/TitleIcon'
import type { Offer, Taking } from '../api/shelf'
import { useTake } from '../api/shelf'
import { hasToBeAsked } from '../model/choices'
import { waiting } from '../model/waiting'
import type { Speaker } from '../state/useTexts'
import { useSpeaker } from '../state/useTexts'
import { AskPart } from './AskPart'
import { GiveBack } from './GiveBack'

const ICON = 46

interface Props {
  offer: Offer
  device: string
  /** Whether an entry in the computer's menu stands for it. */
  isWanted: boolean
  /** Whether it is taken at once then. */
  takes: boolean
  onFound: () => void
}

/** One title that one may take, watch arriving, and give back. */
export function OfferCard({ offer, device, isWanted, takes, onFound }: Props) {
  const { say } = useSpeaker()
  const take = useTake()
  const [asking, setAsking] = useState(false)
  const taken = (taking: Taking) =>
    take.mutate(
      { device, title: offer.title, taking },
      {
        onSuccess: () => {
          setAsking(false)
          announce(say(offer.asks?.approval === true ? 'saidAsked' : 'saidTaken', { name: offer.name }))
        },
      },
    )
  const card = useWanted(isWanted, onFound, () => {
    if (takes && offer.state === 'offered' && offer.web === undefined) {
      if (hasToBeAsked(offer)) {
        setAsking(true)
      } else {
        taken({ choices: {} })
      }
    }
  })
  // A row of its own, so that the cards beside it stay as high as they are.
  const isAsking = offer.state === 'offered' && asking
  return (
    <Flex
      as="li"
      ref={card}
      gap="3.5"
      p="4"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="lg"
      minH="118px"
      {...(isAsking && { gridColumn: '1 / -1' })}
      aria-label={offer.name}
    >
      <TitleIcon name={offer.name} icon={offer.icon} size={ICON} />
      <Flex direction="column" flex="1" minW="0" gap="1">
        <Box as="h3" fontWeight="600">
          {offer.name}
        </Box>
        {offer.description !== '' && (
          <Box color="ink2" textStyle="compact">
            {offer.description}
          </Box>
        )}
        <Box flex="1" />
        {offer.web !== undefined ? (
          <Flex align="flex-end" gap="2">
            <Box flex="1" color="ink2" textStyle="second">
              {say('opensPage')}
              {offer.request !== undefined && (
                <GiveBack name={offer.name} device={device} title={offer.title} isThere />
              )}
            </Box>
            <Button size="lg" asChild>
              <a href={offer.web} target="_blank" rel="noopener noreferrer">
                {say('open')}
                <Box as="span" srOnly>
                  {' '}
                  {offer.name}
                </Box>
              </a>
            </Button>
          </Flex>
        ) : offer.state !== 'offered' ? (
          <Standing offer={offer} device={device} />
        ) : isAsking ? (
          <AskPart
            offer={offer}
            busy={take.isPending}
            onTake={taken}
            onCancel={() => {
              take.reset()
              setAsking(false)
            }}
          />
        ) : (
          <Flex align="flex-end" gap="2">
            <Box flex="1" color="ink2" textStyle="second">
              {offer.request?.state === 'refused' && (
                <Box color="trouble">{say('refused', { words: offer.request.words ?? '' })}</Box>
              )}
              {facts(offer, say).join(' · ')}
              {!hasToBeAsked(offer) && offer.asks !== undefined && (
                <>
                  {' · '}
                  <Button variant="text" size="inline" textStyle="second" onClick={() => setAsking(true)}>
                    {say('options')}
                    <Box as="span" srOnly>
                      {' '}
                      {offer.name}
                    </Box>
                  </Button>
                </>
              )}
            </Box>
            <Button
              size="lg"
              loading={take.isPending}
              onClick={() => (hasToBeAsked(offer) ? setAsking(true) : taken({ choices: {} }))}
            >
              {say(getWords(offer))}
              <Box as="span" srOnly>
                {' '}
                {offer.name}
              </Box>
            </Button>
          </Flex>
        )}
        <Box role="alert" color="trouble" textStyle="second">
          {take.isError && sentence(take.error)}
        </Box>
      </Flex>
    </Flex>
  )
}

/** Takes what an entry in the computer's menu stands for, once, and shows it. */
function useWanted(isWanted: boolean, onFound: () => void, take: () => void) {
  const card = useRef<HTMLLIElement & HTMLDivElement>(null)
  const act = useRef(take)
  useEffect(() => {
    act.current = take
  })
  useEffect(() => {
    if (isWanted) {
      card.current?.scrollIntoView({ block: 'center' })
      onFound()
      act.current()
    }
  }, [isWanted, onFound])
  return card
}

/** How it stands with what one has taken. */
function Standing({ offer, device }: { offer: Offer; device: string }) {
  const speaker = useSpeaker()
  return (
    <>
      <Box
        textStyle="compact"
        color={offer.state === 'failed' ? 'trouble' : offer.state === 'waiting' ? 'lagoon' : 'ink'}
      >
        {standing(offer, speaker)}
      </Box>
      {offer.state === 'under-way' && <Progress percent={offer.percent} label={offer.name} />}
      {offer.request?.until !== undefined && (
        <Box color="ink2" textStyle="second">
          {speaker.say('yoursUntil', { date: speaker.day(offer.request.until, true) })}
        </Box>
      )}
      {offer.seats?.place !== undefined && (
        <Box color="ink2" textStyle="second">
          {speaker.say('place', { place: offer.seats.place })}
        </Box>
      )}
      {offer.request !== undefined && (
        <GiveBack name={offer.name} device={device} title={offer.title} isThere={offer.state === 'in-place'} />
      )}
    </>
  )
}

type Say = Speaker['say']

function getWords(offer: Offer): 'get' | 'ask' | 'askAgain' {
  return offer.asks?.approval !== true ? 'get' : offer.request?.state === 'refused' ? 'askAgain' : 'ask'
}

function standing(offer: Offer, speaker: Speaker): string {
  const { say } = speaker
  switch (offer.state) {
    case 'under-way':
      return say('state.under-way', { percent: offer.percent ?? 0 })
    case 'waiting':
      return offer.waitsFor === 'approval' && offer.request === undefined
        ? say('state.waiting.approvalOfOther')
        : waiting(offer, speaker)
    case 'failed':
      return say('state.failed', { line: offer.line })
    case 'leaving':
      return say('state.leaving')
    case 'in-place':
    case 'offered':
      return say('state.in-place')
  }
}

/** What one should know before taking it. */
function facts(offer: Offer, say: Say): readonly string[] {
  const { seats } = offer
  return [
    ...(offer.bytes > 0 ? [bytes(offer.bytes)] : []),
    ...(offer.minutes > 0 ? [say('upTo', { minutes: offer.minutes })] : []),
    ...(offer.forPerson ? [say('forYouAlone')] : []),
    ...(offer.takesOff.length > 0 ? [say('takesOff', { names: offer.takesOff.join(', ') })] : []),
    ...(offer.asks?.approval === true ? [say('needsApproval')] : []),
    ...(offer.mayRestart ? [say('mayRestart')] : []),
    ...(seats === undefined
      ? []
      : [seats.free === 0 ? say('seatsNone') : say('seats', { free: seats.free, all: seats.all })]),
  ]
}
