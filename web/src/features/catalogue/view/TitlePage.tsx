import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { Button } from '../../../shared/Button'
import { Diamond } from '../../../shared/Diamond'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { count, some } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/Notice'
import type { TitlePageData } from '../api/catalogue'
import { useTitle } from '../api/catalogue'
import { useEdit } from '../model/useEdit'
import { useTitleAddress } from '../model/useTitleAddress'
import { AboutWindow } from './AboutWindow'
import { SeatsWindow } from './DeviceListWindow'
import { ReadyPanel } from './ReadyPanel'
import { RelationGraph } from './RelationGraph'
import { ReleaseRail } from './ReleaseRail'
import { StepFlow } from './StepFlow'
import { TitleIcon } from './TitleIcon'

/** Is this title ready, and what would it do on a device? */
export function TitlePage() {
  const { title: id = '' } = useParams()
  const title = useTitle(id)
  useEffect(() => {
    if (title.data !== undefined) {
      document.title = `${title.data.record.name} · Rivo`
    }
  }, [title.data])
  if (failure(title) !== undefined) {
    return (
      <Notice heading="This title cannot be shown">
        {sentence(title.error)} <Link to="/catalogue">All titles</Link>
      </Notice>
    )
  }
  return title.data === undefined ? null : <Page key={id} page={title.data} refetch={() => void title.refetch()} />
}

function Page({ page, refetch }: { page: TitlePageData; refetch: () => void }) {
  const address = useTitleAddress(page)
  const editing = useEdit(page, refetch)
  const release = page.record.releases.find(r => r.version === address.version)
  const standing = page.releases.find(r => r.version === address.version)
  return (
    <Flex direction="column" h="100%" px="18px" pt="14px" pb="16px" gap="14px" overflowY="auto">
      <Head page={page} editing={editing} />
      <Flex flex="1" minH="480px" gap="16px">
        <Box w="236px" flexShrink="0" overflowY="auto">
          <ReleaseRail page={page} address={address} editing={editing} />
          <RelationGraph page={page} version={address.version} editing={editing} />
        </Box>
        {release === undefined || standing === undefined ? (
          <Box flex="1" bg="panel" borderWidth="1px" borderColor="line" borderRadius="8px">
            <Notice heading="No release yet">Drop an installer at the left: the first release is read from it.</Notice>
          </Box>
        ) : (
          <>
            <StepFlow page={page} release={release} address={address} editing={editing} />
            <ReadyPanel page={page} release={release} standing={standing} address={address} editing={editing} />
          </>
        )}
      </Flex>
    </Flex>
  )
}

function Head({ page, editing }: { page: TitlePageData; editing: ReturnType<typeof useEdit> }) {
  const { record } = page
  const navigate = useNavigate()
  const [about, setAbout] = useState(false)
  const [seats, setSeats] = useState(false)
  const on = page.present.reduce((sum, version) => sum + version.devices, 0)
  const reach = `/reach/${encodeURIComponent(record.id)}`
  useKeys('The title', [
    { key: 'a', says: 'Assign it', act: () => void navigate(reach) },
    { key: 'e', says: 'Edit what is said of it', act: () => setAbout(true) },
  ])
  const facts = [
    record.maker,
    record.about.owner === '' ? '' : `owner ${record.about.owner}`,
    record.about.category,
    on === 0 ? 'on no device' : `on ${some(on, 'device')}`,
  ].filter(fact => fact !== '')
  return (
    <Flex align="center" gap="14px">
      <TitleIcon name={record.name} icon={record.about.icon} size={42} />
      <Box flex="1" minW="0">
        <Box as="h1" fontSize="20px" fontWeight="700" truncate>
          {record.name}
        </Box>
        <Box color="ink2" fontSize="13px" truncate title={record.about.description}>
          {facts.join(' · ')}
          {record.seats !== undefined && (
            <>
              {' · '}
              <Button variant="text" h="18px" px="0" fontSize="13px" fontWeight="400" onClick={() => setSeats(true)}>
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
      <Box fontSize="13px" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
        <a href={`/api/titles/${encodeURIComponent(record.id)}/export`} download>
          Export
        </a>
      </Box>
      <Button onClick={() => setAbout(true)}>
        Edit <Kbd>E</Kbd>
      </Button>
      <Button variant="chosen" onClick={() => void navigate(reach)}>
        <Diamond kind="required" size={11} />
        Assign <Kbd>A</Kbd>
      </Button>
      {seats && <SeatsWindow title={record.id} name={record.name} onClose={() => setSeats(false)} />}
      {about && <AboutWindow record={record} editing={editing} onClose={() => setAbout(false)} />}
    </Flex>
  )
}
