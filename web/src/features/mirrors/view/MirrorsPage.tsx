import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Panel } from '../../../shared/ui/Panel'
import { Link, useParams } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { bytes, some } from '../../../shared/format'
import { Kbd } from '../../../shared/ui/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/ui/Notice'
import { Columns, Page, side } from '../../../shared/ui/Page'
import { PageHead } from '../../../shared/ui/PageHead'
import { QueryState } from '../../../shared/ui/QueryState'
import { useOpenWindow } from '../../../shared/useAddressState'
import type { MirrorLine, Mirrors } from '../api/mirrors'
import { useMirrors } from '../api/mirrors'
import { standingWords } from '../model/words'
import { MirrorPanel } from './MirrorPanel'

const MirrorWindow = lazy(() => import('./MirrorWindow').then(part => ({ default: part.MirrorWindow })))

/** Is the content near the devices? */
export function MirrorsPage() {
  const mirrors = useMirrors()
  return (
    <QueryState alone query={mirrors} failed="The mirrors cannot be shown">
      {known => <Content mirrors={known} />}
    </QueryState>
  )
}

function Content({ mirrors }: { mirrors: Mirrors }) {
  const { mirror } = useParams()
  const [open, setOpen] = useOpenWindow()
  useKeys('The mirrors', [{ key: 'n', says: 'Add a mirror', act: () => setOpen('new') }])
  const chosen = mirrors.mirrors.find(line => line.mirror.id === mirror) ?? mirrors.mirrors[0]
  return (
    <Page>
      <PageHead heading="Mirrors">
        <Box flex="1" minW="0" color="ink2" textStyle="compact">
          {some(mirrors.contents, 'file')} of the catalogue, {bytes(mirrors.bytes)} · devices fetched{' '}
          {bytes(mirrors.fetchedBytes)} from the server itself
        </Box>
        <Button onClick={() => setOpen('new')}>
          Add a mirror <Kbd>N</Kbd>
        </Button>
      </PageHead>
      {chosen === undefined ? (
        <Panel flex="1">
          <Notice heading="Every device fetches from the server">
            A mirror is an ordinary caching web server at a site. Add one, and Rivo writes its configuration for nginx;
            the devices of the site ask it first, and the server only for what it does not have.
          </Notice>
        </Panel>
      ) : (
        <Columns>
          <Box as="nav" aria-label="Mirrors" {...side('300px')} overflowY="auto">
            {mirrors.mirrors.map(line => (
              <Row key={line.mirror.id} line={line} contents={mirrors.contents} chosen={line === chosen} />
            ))}
          </Box>
          <MirrorPanel key={chosen.mirror.id} line={chosen} contents={mirrors.contents} />
        </Columns>
      )}
      {open === 'new' && (
        <Suspense fallback={null}>
          <MirrorWindow mirror={undefined} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
    </Page>
  )
}

function Row({ line, contents, chosen }: { line: MirrorLine; contents: number; chosen: boolean }) {
  return (
    <Box mb="2" css={{ '& a': { display: 'block' } }}>
      <Link to={`/mirrors/${encodeURIComponent(line.mirror.id)}`} aria-current={chosen ? 'page' : undefined}>
        <Box
          px="3.5"
          py="2"
          borderWidth="1px"
          borderColor={chosen ? 'lagoonLine' : 'line'}
          borderRadius="lg"
          bg={chosen ? 'lagoonSoft' : 'panel'}
          _hover={chosen ? {} : { bg: 'hover' }}
        >
          <Flex justify="space-between" gap="2">
            <Box fontWeight="600" truncate>
              {line.mirror.name}
            </Box>
            <Box color="ink2" textStyle="second" whiteSpace="nowrap">
              {some(line.devices, 'device')}
            </Box>
          </Flex>
          <Box textStyle="second" color={line.trouble === undefined ? 'ink2' : 'trouble'} lineClamp={2}>
            {standingWords(line, contents)}
          </Box>
        </Box>
      </Link>
    </Box>
  )
}
