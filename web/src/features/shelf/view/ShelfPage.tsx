import { Box, Flex } from '@chakra-ui/react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { SignInForm, useLeaveWhenOver, useSessionQuery, useSignIn, useSignInByLink, useSignOut } from '../../session'
import { sentence } from '../../../shared/api'
import { name } from '../../../shared/address'
import { failure } from '../../../shared/failure'
import { Announcer } from '../../../shared/ui/Announcer'
import { Button } from '../../../shared/ui/Button'
import { Mark } from '../../../shared/ui/Mark'
import { Notice } from '../../../shared/ui/Notice'
import { Select } from '../../../shared/ui/TextField'
import { useAddressState } from '../../../shared/useAddressState'
import type { Shelf } from '../api/shelf'
import { useShelf } from '../api/shelf'
import { LANGUAGES } from '../model/texts'
import { SpeakerContext, useNewSpeaker, useSpeaker } from '../state/useTexts'
import { ComingPart } from './ComingPart'
import { HerePart } from './HerePart'
import { NoticeCorner } from './NoticeCorner'
import { Offers } from './Offers'

/** What people see: what is offered to them on a computer of theirs, what is coming, and what is there. */
export function ShelfPage() {
  const speaker = useNewSpeaker()
  const session = useSessionQuery()
  useLeaveWhenOver()
  const link = useLink()
  if (link.isOpening) {
    return (
      <SpeakerContext.Provider value={speaker}>
        <Notice alone heading={speaker.say('linkOpening')}>
          {null}
        </Notice>
      </SpeakerContext.Provider>
    )
  }
  return (
    <SpeakerContext.Provider value={speaker}>
      {link.error !== null && (
        <Box role="alert" color="trouble" textAlign="center" pt="4" px="5">
          {sentence(link.error)}
        </Box>
      )}
      {session.data === null && <Enter />}
      {session.data === undefined && session.isError && (
        <Notice alone heading={speaker.say('failed')}>
          {sentence(session.error)}
        </Notice>
      )}
      {session.data !== null && session.data !== undefined && (
        <Content account={session.data.account} byLink={link.isUsed} />
      )}
      <Announcer />
    </SpeakerContext.Provider>
  )
}

const LINK = '#in='

/** Where one's computer has opened the shelf: the link signs in, once, and leaves the address. */
function useLink(): { isOpening: boolean; isUsed: boolean; error: Error | null } {
  const { mutate, status, error } = useSignInByLink()
  const [token] = useState(() =>
    window.location.hash.startsWith(LINK) ? window.location.hash.slice(LINK.length) : undefined,
  )
  const used = useRef(false)
  useEffect(() => {
    if (token !== undefined && !used.current) {
      used.current = true
      window.history.replaceState(null, '', window.location.pathname + window.location.search)
      mutate(token)
    }
  }, [token, mutate])
  return {
    isOpening: token !== undefined && (status === 'idle' || status === 'pending'),
    isUsed: status === 'success',
    error,
  }
}

function Enter() {
  const { say } = useSpeaker()
  useTitle(say('title'))
  return (
    <SignInForm
      signIn={useSignIn('/api/shelf/session')}
      words={{
        heading: say('signIn'),
        account: say('account'),
        password: say('password'),
        enter: say('enter'),
        needsAccount: say('needsAccount'),
        needsPassword: say('needsPassword'),
      }}
    />
  )
}

function useTitle(title: string) {
  useEffect(() => {
    document.title = title
  }, [title])
}

const ADDRESS = { on: name, take: name }
const WIDTH = '1080px'

interface ContentProps {
  account: string
  /** Whether one's computer has opened the shelf. */
  byLink: boolean
}

function Content({ account, byLink }: ContentProps) {
  const { say } = useSpeaker()
  const [address, change] = useAddressState(ADDRESS)
  const shelf = useShelf(address.on)
  useTitle(`${say('title')} · ${account}`)
  // What is looked at stays, wherever one signs in meanwhile.
  const device = shelf.data?.device
  useEffect(() => {
    if (address.on === undefined && device !== undefined) {
      change({ on: device }, { replace: true })
    }
  }, [address.on, device, change])
  const why = failure(shelf)
  // Until the shelf of another computer has come, the one before can be read, and not be pressed: it would act on the wrong one.
  const isComing = shelf.isPlaceholderData && address.on !== undefined && address.on !== device
  const isTaken = useCallback(() => change({ take: undefined }, { replace: true }), [change])
  return (
    <Flex direction="column" minH="100%">
      <Head shelf={shelf.data} on={isComing ? address.on : device} onChoose={on => change({ on })} />
      <Box
        as="main"
        id="main"
        w="100%"
        maxW={WIDTH}
        mx="auto"
        px="5"
        pb="10"
        inert={isComing}
        aria-busy={isComing}
        opacity={isComing ? 0.5 : 1}
      >
        {why !== undefined && (
          <Notice heading={say('failed')}>
            {sentence(why)}
            <Box mt="3">
              {address.on === undefined ? (
                <Button onClick={() => void shelf.refetch()}>{say('again')}</Button>
              ) : (
                <Button onClick={() => change({ on: undefined })}>{say('again')}</Button>
              )}
            </Box>
          </Notice>
        )}
        {why === undefined && shelf.data !== undefined && (
          <Parts shelf={shelf.data} wanted={address.take} takes={byLink} onFound={isTaken} />
        )}
      </Box>
    </Flex>
  )
}

interface PartsProps {
  shelf: Shelf
  /** The title that an entry in the computer's menu stands for. */
  wanted: string | undefined
  /** Whether it is taken at once: only where the computer itself has opened it, since anybody can write an address. */
  takes: boolean
  onFound: () => void
}

function Parts({ shelf, wanted, takes, onFound }: PartsProps) {
  const { say } = useSpeaker()
  return (
    <>
      {shelf.device !== undefined && <NoticeCorner notices={shelf.notices} device={shelf.device} />}
      <Box as="h1" textStyle="title" pt="6" pb="4">
        {say('hello', { name: shelf.person })}
      </Box>
      {shelf.device === undefined ? (
        <Notice heading={say('noComputer')}>{say('noComputerWhy')}</Notice>
      ) : (
        <>
          <ComingPart coming={shelf.coming} device={shelf.device} />
          <Offers offers={shelf.offers} device={shelf.device} wanted={wanted} takes={takes} onFound={onFound} />
          <HerePart here={shelf.here} device={shelf.device} />
          {/* Room for the corner, so that it covers nothing that one scrolls to. */}
          {shelf.notices.length > 0 && <Box h={{ base: '0', md: '60' }} />}
        </>
      )}
    </>
  )
}

interface HeadProps {
  shelf: Shelf | undefined
  /** The computer that is chosen, whether or not its shelf has come. */
  on: string | undefined
  onChoose: (device: string) => void
}

function Head({ shelf, on, onChoose }: HeadProps) {
  const { say, language, choose } = useSpeaker()
  const signOut = useSignOut('/shelf')
  return (
    <Box as="header" borderBottomWidth="1px" borderColor="line">
      <Flex maxW={WIDTH} mx="auto" px="5" py="2.5" gap="3" align="center" wrap="wrap">
        <Mark />
        <Box>
          <b>{say('title')}</b>
          <Box as="span" color="ink2" ml="2.5">
            {say('subtitle')}
          </Box>
        </Box>
        <Box flex="1" />
        {shelf?.device !== undefined && (
          <Flex as="label" align="center" gap="2" color="ink2">
            {say('onComputer')}
            <Select value={on} onChange={event => onChoose(event.target.value)}>
              {shelf.devices.map(device => (
                <option key={device.id} value={device.id}>
                  {device.signedIn ? say('signedInThere', { name: device.name }) : device.name}
                </option>
              ))}
            </Select>
          </Flex>
        )}
        <Flex gap="1" align="center" role="group" aria-label="Language">
          {Object.entries(LANGUAGES).map(([code, texts]) => (
            <Button
              key={code}
              variant={code === language ? 'chosen' : 'text'}
              size="sm"
              lang={code}
              aria-pressed={code === language}
              onClick={() => choose(code)}
            >
              {texts.language}
            </Button>
          ))}
        </Flex>
        <Button size="sm" onClick={() => signOut.mutate()}>
          {say('signOut')}
        </Button>
      </Flex>
    </Box>
  )
}
