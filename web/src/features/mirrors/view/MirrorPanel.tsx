import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Panel } from '../../../shared/ui/Panel'
import { Link, useNavigate } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { bytes, count, fromNow, fullInstant, some } from '../../../shared/format'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
import { Progress } from '../../../shared/ui/Progress'
import { useOpenWindow } from '../../../shared/useAddressState'
import { useNow } from '../../../shared/useNow'
import type { MirrorContent, MirrorLine } from '../api/mirrors'
import { useCancelCopies, useContents, useCopy, useDeleteMirror, useLook } from '../api/mirrors'
import { copyWords, fetchedWords, percent, savedWords, standingWords } from '../model/words'

const MirrorWindow = lazy(() => import('./MirrorWindow').then(part => ({ default: part.MirrorWindow })))
const NginxWindow = lazy(() => import('./NginxWindow').then(part => ({ default: part.NginxWindow })))

/** One mirror: who asks it, what it holds, and how far a copy is. */
export function MirrorPanel({ line, contents: all }: { line: MirrorLine; contents: number }) {
  const { mirror } = line
  const contents = useContents(mirror.id)
  const look = useLook()
  const copy = useCopy()
  const cancel = useCancelCopies()
  const remove = useDeleteMirror()
  const navigate = useNavigate()
  const now = useNow()
  const [window, setWindow] = useOpenWindow()
  // By its id too: whatever happens to the list meanwhile, a window is never about another mirror.
  const open = window?.endsWith(`:${mirror.id}`) === true ? window.slice(0, window.indexOf(':')) : undefined
  const setOpen = (name: string | undefined) => setWindow(name === undefined ? undefined : `${name}:${mirror.id}`)
  const trouble = look.error ?? copy.error ?? cancel.error ?? remove.error
  return (
    <Panel aria-label={mirror.name} column flex="1" minW="0" padded>
      <Flex align="center" gap="2" mb="0.5">
        <Box as="h2" flex="1" minW="0" textStyle="heading" truncate>
          {mirror.name}
        </Box>
        <Button onClick={() => setOpen('nginx')}>Set up nginx…</Button>
        <Button onClick={() => setOpen('edit')}>Edit</Button>
        <Button onClick={() => setOpen('delete')}>Delete…</Button>
      </Flex>
      <Box color="ink2" textStyle="compact" overflowWrap="anywhere">
        {mirror.address} · asked by{' '}
        {mirror.fits === undefined ? (
          'every device'
        ) : (
          <>
            {count(line.devices)} where{' '}
            <Box as="code" textStyle="code">
              {mirror.fits}
            </Box>
          </>
        )}
      </Box>
      <Flex align="center" gap="2.5" mt="2.5" pb="2.5" borderBottomWidth="1px" borderColor="line">
        <Box flex="1" minW="0" role="status">
          <Box color={line.trouble === undefined ? 'ink' : 'trouble'} fontWeight="600">
            {standingWords(line, all)}
            {line.trouble === undefined && line.heldBytes > 0 && `, ${bytes(line.heldBytes)}`}
          </Box>
          <Box color="ink2" textStyle="second">
            {savedWords(line)}
            {line.lookedAt !== undefined && (
              <span title={fullInstant(line.lookedAt)}> · looked at {fromNow(line.lookedAt, now)}</span>
            )}
          </Box>
        </Box>
        <Button loading={look.isPending} onClick={() => look.mutate(mirror.id)}>
          Look again
        </Button>
        {line.copying > 0 ? (
          <Button loading={cancel.isPending} onClick={() => cancel.mutate(mirror.id)}>
            Stop copying
          </Button>
        ) : (
          line.held < all && (
            <Button variant="chosen" loading={copy.isPending} onClick={() => copy.mutate({ id: mirror.id })}>
              Copy what is missing
            </Button>
          )
        )}
      </Flex>
      {trouble !== null && (
        <Box color="trouble" role="alert" mt="2">
          {sentence(trouble)}
        </Box>
      )}
      <Box
        flex="1"
        minH="0"
        overflowY="auto"
        mt="1"
        tabIndex={0}
        role="region"
        aria-label={`What ${mirror.name} holds`}
      >
        {(contents.data ?? []).map(content => (
          <ContentRow
            key={`${content.title} ${content.version} ${content.fileName}`}
            content={content}
            onCopy={() => copy.mutate({ id: mirror.id, sha256: [content.sha256] })}
          />
        ))}
        {contents.data?.length === 0 && (
          <Box color="ink2" pt="2.5">
            The catalogue has no content yet.
          </Box>
        )}
      </Box>
      {open === 'edit' && (
        <Suspense fallback={null}>
          <MirrorWindow mirror={mirror} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {open === 'delete' && (
        <Window
          open
          onClose={() => setOpen(undefined)}
          heading={`Delete the mirror ${mirror.name}?`}
          width="480px"
          foot={
            <WindowFoot onCancel={() => setOpen(undefined)}>
              <Button
                size="lg"
                variant="chosen"
                loading={remove.isPending}
                onClick={() =>
                  void remove.mutateAsync(mirror.id).then(
                    () => navigate('/mirrors', { replace: true }),
                    () => undefined,
                  )
                }
              >
                Delete
              </Button>
            </WindowFoot>
          }
        >
          Its {some(line.devices, 'device')} will fetch from the other mirrors that fit them, or from the server. Its
          key is worth nothing from then on; what it holds stays on its disk.
        </Window>
      )}
      {open === 'nginx' && (
        <Suspense fallback={null}>
          <NginxWindow mirror={mirror} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
    </Panel>
  )
}

function ContentRow({ content, onCopy }: { content: MirrorContent; onCopy: () => void }) {
  const moving = content.state === 'copying' || content.state === 'waiting'
  return (
    <Flex align="center" gap="3" py="1.5" borderBottomWidth="1px" borderColor="line" textStyle="compact">
      <Box flex="1" minW="0">
        <Box truncate css={{ '& a:hover': { textDecoration: 'underline' } }}>
          <Link to={`/catalogue/${encodeURIComponent(content.title)}?release=${encodeURIComponent(content.version)}`}>
            <b>{content.titleName}</b> {content.version}
          </Link>
        </Box>
        <Box color="ink2" textStyle="second" truncate>
          {content.fileName} · {bytes(content.size)}
        </Box>
      </Box>
      <Box w="150px" color="ink2" textStyle="second" textAlign="right">
        {fetchedWords(content.fetches)}
      </Box>
      <Box w="190px">
        <Box color={content.state === 'failed' ? 'trouble' : 'ink2'} textStyle="second">
          {copyWords(content)}
        </Box>
        <Progress percent={percent(content)} label={`${content.fileName}: ${copyWords(content)}`} />
      </Box>
      <Box w="64px" textAlign="right">
        {content.state !== 'held' && !moving && (
          <Button size="sm" aria-label={`Copy ${content.fileName}`} onClick={onCopy}>
            Copy
          </Button>
        )}
      </Box>
    </Flex>
  )
}
