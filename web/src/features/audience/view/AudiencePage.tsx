import { Box } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Link, useParams } from 'react-router'
import { Notice } from '../../../shared/ui/Notice'
import { Columns, Page } from '../../../shared/ui/Page'
import { usePageTitle } from '../../../shared/ui/PageHead'
import { QueryState } from '../../../shared/ui/QueryState'
import { useAudience } from '../api/audiences'
import { AudienceNav } from './AudienceNav'
import { AudiencePanel } from './AudiencePanel'
import { ReceivesPanel } from './ReceivesPanel'

const CollectionPanel = lazy(() => import('./CollectionPanel').then(part => ({ default: part.CollectionPanel })))

/** Whom can be reached: every OU, group and collection, with whom it holds and why, and what it receives. */
export function AudiencePage() {
  const { target } = useParams()
  return (
    <Page>
      <Columns>
        <AudienceNav chosen={target} />
        {target === undefined ? (
          <Box flex="1">
            <Notice heading="Whom software is assigned to">
              Choose an organisational unit, a security group or a collection at the left to see whom it holds, through
              which other groups, and what it receives. A collection holds devices by a rule of your own.
            </Notice>
          </Box>
        ) : target === 'new' ? (
          <Suspense fallback={null}>
            <CollectionPanel key="new" view={undefined} />
          </Suspense>
        ) : (
          <One key={target} target={target} />
        )}
      </Columns>
    </Page>
  )
}

function One({ target }: { target: string }) {
  const audience = useAudience(target)
  usePageTitle(audience.data?.name)
  return (
    <QueryState
      query={audience}
      failed="This audience cannot be shown"
      remedy={<Link to="/audiences">All audiences</Link>}
    >
      {view =>
        view.collection === undefined ? (
          <>
            <AudiencePanel view={view} />
            <ReceivesPanel view={view} />
          </>
        ) : (
          <Suspense fallback={null}>
            <CollectionPanel key={view.target} view={view} />
          </Suspense>
        )
      }
    </QueryState>
  )
}
