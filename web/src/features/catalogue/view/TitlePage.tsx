import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Panel } from '../../../shared/ui/Panel'
import { Link, useNavigate, useParams } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { count, some } from '../../../shared/format'
import { Kbd } from '../../../shared/ui/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/ui/Notice'
import { Columns, Page, side } from '../../../shared/ui/Page'
import { PageHeading, usePageTitle } from '../../../shared/ui/PageHead'
import { QueryState } from '../../../shared/ui/QueryState'
import { useOpenWindow } from '../../../shared/useAddressState'
import { assignAddress } from '../../assign'
import type { TitlePageData } from '../api/catalogue'
import { useTitle } from '../api/catalogue'
import { whereWords } from '../model/scope'
import { useEdit } from '../state/useEdit'
import { useTitleAddress } from '../state/useTitleAddress'
import { ReadyPanel } from './ReadyPanel'
import { RelationGraph } from './RelationGraph'
import { ReleaseRail } from './ReleaseRail'
import { StepFlow } from './StepFlow'
import { TitleIcon } from '../../../shared/ui/TitleIcon'

const AboutWindow = lazy(() => import('./AboutWindow').then(part => ({ default: part.AboutWindow })))
const SeatsWindow = lazy(() => import('./DeviceListWindow').then(part => ({ default: part.SeatsWindow })))

/** Is this title ready, and what would it do on a device? */
export function TitlePage() {
  const { title: id = '' } = useParams()
  const title = useTitle(id)
  usePageTitle(title.data?.record.name)
  return (
    <QueryState
      alone
      query={title}
      failed="This title cannot be shown"
      remedy={<Link to="/catalogue">All titles</Link>}
    >
      {page => <Content key={id} page={page} refetch={() => void title.refetch()} />}
    </QueryState>
  )
}

function Content({ page, refetch }: { page: TitlePageData; refetch: () => void }) {
  const address = useTitleAddress(page)
  const editing = useEdit(page, refetch)
  const release = page.record.releases.find(r => r.version === address.version)
  const standing = page.releases.find(r => r.version === address.version)
  return (
    <Page>
      <Head page={page} editing={editing} />
      <Columns>
        <Box {...side('236px')} overflowY="auto">
          <ReleaseRail page={page} address={address} editing={editing} />
          <RelationGraph page={page} address={address} editing={editing} />
        </Box>
        {release === undefined || standing === undefined ? (
          <Panel flex="1">
            <Notice heading="No release yet">Drop an installer at the left: the first release is read from it.</Notice>
          </Panel>
        ) : (
          <Flex
            flex="1"
            minW="0"
            gap="4"
            direction={{ base: 'column', xl: 'row' }}
            overflowY={{ lg: 'auto', xl: 'visible' }}
          >
            <StepFlow page={page} release={release} address={address} editing={editing} />
            <ReadyPanel page={page} release={release} standing={standing} address={address} editing={editing} />
          </Flex>
        )}
      </Columns>
    </Page>
  )
}

function Head({ page, editing }: { page: TitlePageData; editing: ReturnType<typeof useEdit> }) {
  const { record } = page
  const navigate = useNavigate()
  const [open, setOpen] = useOpenWindow()
  const on = page.present.reduce((sum, version) => sum + version.devices, 0)
  const reach = assignAddress({ title: record.id })
  useKeys('The title', [
    { key: 'a', says: 'Assign it', act: () => void navigate(reach) },
    { key: 'e', says: 'Edit what is said of it', act: () => setOpen('about') },
  ])
  const facts = [
    record.maker,
    record.about.owner === '' ? '' : `owner ${record.about.owner}`,
    record.about.category,
    record.scope === 'user' ? 'installed for each person' : '',
    whereWords(record.scope, on),
  ].filter(fact => fact !== '')
  return (
    <Flex align="center" gap="3.5">
      <TitleIcon name={record.name} icon={record.about.icon} size={42} />
      <Box flex="1" minW="0">
        <PageHeading>{record.name}</PageHeading>
        <Box color="ink2" textStyle="compact" truncate title={record.about.description}>
          {facts.join(' · ')}
          {record.seats !== undefined && (
            <>
              {' · '}
              <Button
                variant="text"
                size="xs"
                px="0"
                textStyle="compact"
                fontWeight="400"
                onClick={() => setOpen('seats')}
              >
                {some(record.seats, 'seat')}, {count(page.assigned)} taken
              </Button>
            </>
          )}
          {page.kits.map(kit => (
            <Box as="span" key={kit.id} css={{ '& a': { textDecoration: 'underline' } }}>
              {' · in '}
              <Link to={`/catalogue/kits/${encodeURIComponent(kit.id)}`}>{kit.name}</Link>
            </Box>
          ))}
        </Box>
      </Box>
      <Box textStyle="compact" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
        <a href={`/api/titles/${encodeURIComponent(record.id)}/export`} download>
          Export
        </a>
      </Box>
      <Button onClick={() => setOpen('about')}>
        Edit <Kbd>E</Kbd>
      </Button>
      <Button variant="chosen" onClick={() => void navigate(reach)}>
        <Diamond kind="required" size={11} />
        Assign <Kbd>A</Kbd>
      </Button>
      {open === 'seats' && (
        <Suspense fallback={null}>
          <SeatsWindow title={record.id} name={record.name} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {open === 'about' && (
        <Suspense fallback={null}>
          <AboutWindow record={record} editing={editing} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
    </Flex>
  )
}
