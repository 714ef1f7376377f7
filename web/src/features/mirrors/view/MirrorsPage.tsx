import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { bytes, some } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/Notice'
import type { MirrorLine, Mirrors } from '../api/mirrors'
import { useMirrors } from '../api/mirrors'
import { standingWords } from '../model/words'
import { MirrorPanel } from './MirrorPanel'
import { MirrorWindow } from './MirrorWindow'

/** Is the content near the devices? */
export function MirrorsPage() {
  const mirrors = useMirrors()
  useEffect(() => {
    document.title = 'Mirrors · Rivo'
  }, [])
  if (failure(mirrors) !== undefined) {
    return <Notice heading="The mirrors cannot be shown">{sentence(mirrors.error)}</Notice>
  }
  return mirrors.data === undefined ? null : <Page mirrors={mirrors.data} />
}

function Page({ mirrors }: { mirrors: Mirrors }) {
  const { mirror } = useParams()
  const [adding, setAdding] = useState(false)
  useKeys('The mirrors', [{ key: 'n', says: 'Add a mirror', act: () => setAdding(true) }])
  const chosen = mirrors.mirrors.find(line => line.mirror.id === mirror) ?? mirrors.mirrors[0]
  return (
    <Flex direction="column" h="100%" px="18px" pt="14px" pb="16px" gap="12px">
      <Flex align="center" gap="14px">
        <Box flex="1" minW="0">
          <Box as="h1" fontSize="20px" fontWeight="700">
            Mirrors
          </Box>
          <Box color="ink2" fontSize="13px">
            {some(mirrors.contents, 'file')} of the catalogue, {bytes(mirrors.bytes)} · devices fetched{' '}
            {bytes(mirrors.fetchedBytes)} from the server itself
          </Box>
        </Box>
        <Button onClick={() => setAdding(true)}>
          Add a mirror <Kbd>N</Kbd>
        </Button>
      </Flex>
      {chosen === undefined ? (
        <Box flex="1" bg="panel" borderWidth="1px" borderColor="line" borderRadius="8px">
          <Notice heading="Every device fetches from the server">
            A mirror is an ordinary caching web server at a site. Add one, and Rivo writes its configuration for nginx;
            the devices of the site ask it first, and the server only for what it does not have.
          </Notice>
        </Box>
      ) : (
        <Flex flex="1" minH="0" gap="16px">
          <Box as="nav" aria-label="Mirrors" w="300px" flexShrink="0" overflowY="auto">
            {mirrors.mirrors.map(line => (
              <Row key={line.mirror.id} line={line} contents={mirrors.contents} chosen={line === chosen} />
            ))}
          </Box>
          <MirrorPanel key={chosen.mirror.id} line={chosen} contents={mirrors.contents} />
        </Flex>
      )}
      {adding && <MirrorWindow mirror={undefined} onClose={() => setAdding(false)} />}
    </Flex>
  )
}

function Row({ line, contents, chosen }: { line: MirrorLine; contents: number; chosen: boolean }) {
  return (
    <Box mb="8px" css={{ '& a': { display: 'block' } }}>
      <Link to={`/mirrors/${encodeURIComponent(line.mirror.id)}`} aria-current={chosen ? 'page' : undefined}>
        <Box
          px="14px"
          py="9px"
          borderWidth="1px"
          borderColor={chosen ? 'lagoonLine' : 'line'}
          borderRadius="8px"
          bg={chosen ? 'lagoonSoft' : 'panel'}
          _hover={chosen ? {} : { bg: 'hover' }}
        >
          <Flex justify="space-between" gap="8px">
            <Box fontWeight="600" truncate>
              {line.mirror.name}
            </Box>
            <Box color="ink2" fontSize="12.3px" whiteSpace="nowrap">
              {some(line.devices, 'device')}
            </Box>
          </Flex>
          <Box fontSize="12.3px" color={line.trouble === undefined ? 'ink2' : 'trouble'} lineClamp={2}>
            {standingWords(line, contents)}
          </Box>
        </Box>
      </Link>
    </Box>
  )
}
