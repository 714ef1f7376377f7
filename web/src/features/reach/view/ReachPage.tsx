import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense, useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { Navigate, useParams } from 'react-router'
import { Notice } from '../../../shared/ui/Notice'
import { Columns, Page } from '../../../shared/ui/Page'
import { usePageTitle } from '../../../shared/ui/PageHead'
import { QueryState } from '../../../shared/ui/QueryState'
import { useAddressState } from '../../../shared/useAddressState'
import { useShared } from '../../../shared/useShared'
import { useSteady } from '../../../shared/useSteady'
import type { WrittenBody } from '../../assign'
import { ASSIGN_ADDRESS, fetchAssignSheet } from '../../assign'
import type { Reach } from '../api/reach'
import { useReach, useTitles, useWrittenReach } from '../api/reach'
import { REACH_ADDRESS } from '../model/reachAddress'
import { buildTree } from '../model/tree'
import { useWalked } from '../state/useWalked'
import { AcrossPart } from './AcrossPart'
import { OuPanel } from './OuPanel'
import { ReachHead } from './ReachHead'
import { ReachMap } from './ReachMap'
import { WritingSheet } from './WritingSheet'

const ReachTable = lazy(() => import('./ReachTable').then(part => ({ default: part.ReachTable })))

const LAST = 'rivo.title'

/** What does each part of the organisation get of this title? */
export function ReachPage() {
  const { title } = useParams()
  const titles = useTitles()
  const [{ assign }] = useAddressState(ASSIGN_ADDRESS)
  const isAssigning = assign !== undefined
  useEffect(() => {
    if (isAssigning) {
      fetchAssignSheet()
    }
  }, [isAssigning])
  return (
    <QueryState alone query={titles} failed="The titles cannot be shown">
      {all => {
        const first = all[0]
        if (first === undefined) {
          return (
            <Notice alone heading="There is nothing to assign yet">
              The catalogue holds no title. As soon as one is in it, this page shows what each part of the organisation
              gets.
            </Notice>
          )
        }
        if (title === undefined) {
          const last = window.localStorage.getItem(LAST)
          const known = all.find(t => t.id === last) ?? first
          return <Navigate to={`/reach/${encodeURIComponent(known.id)}${window.location.search}`} replace />
        }
        return <ReachOfTitle title={title} />
      }}
    </QueryState>
  )
}

function ReachOfTitle({ title }: { title: string }) {
  const [address] = useAddressState(REACH_ADDRESS)
  const [written, setWritten] = useState<WrittenBody | undefined>(undefined)
  const isMap = address.as === 'map'
  // The table begins with the root, and fetches what is expanded.
  const shown = { top: isMap ? address.in : '', open: isMap ? address.all : [], lit: address.lit }
  const reach = useReach(title, shown)
  // While an assignment is written, the map shows what it would make of it.
  const asWritten = isMap ? written : undefined
  const would = useWrittenReach(title, shown, asWritten)
  const shared = useShared(asWritten === undefined ? reach.data : (would.data ?? reach.data))
  usePageTitle(reach.data === undefined ? undefined : `${reach.data.titleName} · Reach`)
  useEffect(() => {
    if (reach.data !== undefined) {
      window.localStorage.setItem(LAST, title)
    }
  }, [reach.data, title])
  return (
    <QueryState alone query={reach} failed="This cannot be shown">
      {data => <Content reach={shared ?? data} writtenId={asWritten?.id} onWritten={setWritten} />}
    </QueryState>
  )
}

interface ContentProps {
  reach: Reach
  /** The id of the assignment that is being written, as soon as it is shown. */
  writtenId: string | undefined
  onWritten: (written: WrittenBody | undefined) => void
}

function Content({ reach, writtenId, onWritten }: ContentProps) {
  const [address, change] = useAddressState(REACH_ADDRESS)
  const [assigning] = useAddressState(ASSIGN_ADDRESS)
  const keep = useCallback((ou: string) => change({ ou }), [change])
  const [walked, walk] = useWalked(address.ou, keep)
  // The figures of a sheet come first; and as long as nothing has changed the map is the very same, so that only what a step changes is drawn.
  const drawn = useDeferredValue(reach)
  const showBelow = useSteady((parent: string) =>
    change({ in: parent === reach.path[0]?.id ? '' : parent, all: [...address.all, parent] }),
  )
  const tree = useMemo(() => buildTree(drawn.ous), [drawn])
  if (tree === null || reach.devices === 0) {
    return (
      <Notice alone heading="There are no devices yet">
        Rivo has not read a directory with computers in it. As soon as it has, the map of the organisation is shown
        here.
      </Notice>
    )
  }
  const selected = walked ?? tree.ou.id
  const chosen = reach.ous.find(one => one.id === walked)
  const isAcross = address.as === 'map' && reach.across.length > 0
  const isShown = address.as === 'table' || reach.ous.some(ou => ou.id === selected)
  return (
    <Page>
      <ReachHead reach={drawn} />
      <Columns>
        <Flex direction="column" gap="2.5" flex="1" minW="0" h={{ base: '70vh', lg: 'auto' }} minH="320px">
          <Box flex="1" minH="0">
            {address.as === 'table' ? (
              <Suspense fallback={null}>
                <ReachTable reach={reach} root={tree.ou} selected={selected} onSelect={walk} />
              </Suspense>
            ) : (
              <ReachMap path={drawn.path} tree={tree} selected={selected} onSelect={walk} />
            )}
          </Box>
          {isAcross && assigning.assign !== undefined && (
            <AcrossPart reach={drawn} writing={writtenId ?? assigning.assign} />
          )}
        </Flex>
        {assigning.assign === undefined ? (
          <OuPanel
            title={reach.title}
            titleName={reach.titleName}
            perPerson={reach.perPerson}
            ou={selected}
            known={reach.ous.find(ou => ou.id === selected)}
            onShow={isShown ? undefined : showBelow}
          />
        ) : (
          <WritingSheet
            title={reach.title}
            titleName={reach.titleName}
            ou={chosen?.id}
            ouName={chosen?.name}
            onWritten={onWritten}
          />
        )}
      </Columns>
      {isAcross && assigning.assign === undefined && <AcrossPart reach={drawn} />}
    </Page>
  )
}
