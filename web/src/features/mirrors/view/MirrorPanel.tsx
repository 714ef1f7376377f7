import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { bytes, count, fromNow, fullInstant, some } from '../../../shared/format'
import { Window } from '../../../shared/Window'
import { useNow } from '../../../shared/useNow'
import type { MirrorContent, MirrorLine } from '../api/mirrors'
import { useCancelCopies, useContents, useCopy, useDeleteMirror, useLook } from '../api/mirrors'
import { copyWords, fetchedWords, percent, savedWords, standingWords } from '../model/words'
import { MirrorWindow } from './MirrorWindow'
import { NginxWindow } from './NginxWindow'

/** One mirror: who asks it, what it holds, and how far a copy is. */
export function MirrorPanel({ line, contents: all }: { line: MirrorLine; contents: number }) {
  const { mirror } = line
  const contents = useContents(mirror.id, line.copying > 0)
  const look = useLook()
  const copy = useCopy()
  const cancel = useCancelCopies()
  const remove = useDeleteMirror()
  const navigate = useNavigate()
  const now = useNow()
  const [open, setOpen] = useState<'edit' | 'nginx' | 'delete' | undefined>(undefined)
  const trouble = look.error ?? copy.error ?? cancel.error ?? remove.error
  return (
    <Flex
      as="section"
      aria-label={mirror.name}
      direction="column"
      flex="1"
      minW="0"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      p="12px 18px"
    >
      <Flex align="center" gap="8px" mb="2px">
        <Box as="h2" flex="1" minW="0" fontSize="17px" fontWeight="700" truncate>
          {mirror.name}
        </Box>
        <Button onClick={() => setOpen('nginx')}>Set up nginx…</Button>
        <Button onClick={() => setOpen('edit')}>Edit</Button>
        <Button onClick={() => setOpen('delete')}>Delete…</Button>
      </Flex>
      <Box color="ink2" fontSize="13px" overflowWrap="anywhere">
        {mirror.address} · asked by{' '}
        {mirror.fits === undefined ? (
          'every device'
        ) : (
          <>
            {count(line.devices)} where{' '}
            <Box as="code" fontFamily="mono" fontSize="12px">
              {mirror.fits}
            </Box>
          </>
        )}
      </Box>
      <Flex align="center" gap="10px" mt="10px" pb="10px" borderBottomWidth="1px" borderColor="line">
        <Box flex="1" minW="0" role="status">
          <Box color={line.trouble === undefined ? 'ink' : 'trouble'} fontWeight="600">
            {standingWords(line, all)}
            {line.trouble === undefined && line.heldBytes > 0 && `, ${bytes(line.heldBytes)}`}
          </Box>
          <Box color="ink2" fontSize="12.3px">
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
        <Box color="trouble" role="alert" mt="8px">
          {sentence(trouble)}
        </Box>
      )}
      <Box
        flex="1"
        minH="0"
        overflowY="auto"
        mt="4px"
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
          <Box color="ink2" pt="10px">
            The catalogue has no content yet.
          </Box>
        )}
      </Box>
      {open === 'edit' && <MirrorWindow mirror={mirror} onClose={() => setOpen(undefined)} />}
      {open === 'delete' && (
        <Window
          open
          onClose={() => setOpen(undefined)}
          heading={`Delete the mirror ${mirror.name}?`}
          width="480px"
          foot={
            <Flex gap="8px" w="100%" justify="flex-end">
              <Button size="lg" onClick={() => setOpen(undefined)}>
                Cancel
              </Button>
              <Button
                size="lg"
                variant="chosen"
                loading={remove.isPending}
                onClick={() => remove.mutate(mirror.id, { onSuccess: () => void navigate('/mirrors') })}
              >
                Delete
              </Button>
            </Flex>
          }
        >
          Its {some(line.devices, 'device')} will fetch from the other mirrors that fit them, or from the server. Its
          key is worth nothing from then on; what it holds stays on its disk.
        </Window>
      )}
      {open === 'nginx' && <NginxWindow mirror={mirror} onClose={() => setOpen(undefined)} />}
    </Flex>
  )
}

function ContentRow({ content, onCopy }: { content: MirrorContent; onCopy: () => void }) {
  const moving = content.state === 'copying' || content.state === 'waiting'
  return (
    <Flex align="center" gap="12px" py="5px" borderBottomWidth="1px" borderColor="line" fontSize="13px">
      <Box flex="1" minW="0">
        <Box truncate css={{ '& a:hover': { textDecoration: 'underline' } }}>
          <Link to={`/catalogue/${encodeURIComponent(content.title)}?release=${encodeURIComponent(content.version)}`}>
            <b>{content.titleName}</b> {content.version}
          </Link>
        </Box>
        <Box color="ink2" fontSize="12.3px" truncate>
          {content.fileName} · {bytes(content.size)}
        </Box>
      </Box>
      <Box w="150px" color="ink2" fontSize="12.3px" textAlign="right">
        {fetchedWords(content.fetches)}
      </Box>
      <Box w="190px">
        <Box color={content.state === 'failed' ? 'trouble' : 'ink2'} fontSize="12.3px">
          {copyWords(content)}
        </Box>
        <Box h="5px" borderRadius="3px" bg="bandNone" overflow="hidden" aria-hidden="true">
          <Box h="100%" bg="bandRequired" style={{ width: `${percent(content)}%` }} />
        </Box>
      </Box>
      <Box w="64px" textAlign="right">
        {content.state !== 'held' && !moving && (
          <Button h="26px" aria-label={`Copy ${content.fileName}`} onClick={onCopy}>
            Copy
          </Button>
        )}
      </Box>
    </Flex>
  )
}
