import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useMemo } from 'react'
import { Navigate, useParams } from 'react-router'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { Notice } from '../../../shared/Notice'
import { useReach, useTitles } from '../api/reach'
import { buildTree, findNode } from '../model/tree'
import { useReachAddress } from '../model/useReachAddress'
import { OuPanel } from './OuPanel'
import { ReachHead } from './ReachHead'
import { ReachMap } from './ReachMap'
import { ReachTable } from './ReachTable'

const LAST = 'rivo.title'

/** What does each part of the organisation get of this title? */
export function ReachPage() {
  const { title } = useParams()
  const titles = useTitles()
  if (failure(titles) !== undefined) {
    return <Notice heading="The titles cannot be shown">{sentence(titles.error)}</Notice>
  }
  if (titles.data === undefined) {
    return null
  }
  const first = titles.data[0]
  if (first === undefined) {
    return (
      <Notice heading="There is nothing to assign yet">
        The catalogue holds no title. As soon as one is in it, this page shows what each part of the organisation gets.
      </Notice>
    )
  }
  if (title === undefined) {
    const last = window.localStorage.getItem(LAST)
    const known = titles.data.find(t => t.id === last) ?? first
    return <Navigate to={`/reach/${encodeURIComponent(known.id)}${window.location.search}`} replace />
  }
  return <ReachOfTitle title={title} />
}

function ReachOfTitle({ title }: { title: string }) {
  const reach = useReach(title)
  const address = useReachAddress()
  useEffect(() => {
    if (reach.data !== undefined) {
      window.localStorage.setItem(LAST, title)
      document.title = `${reach.data.titleName} · Reach · Rivo`
    }
  }, [reach.data, title])
  // The very same as long as nothing has changed, so that only what a step changes is drawn anew.
  const tree = useMemo(() => (reach.data === undefined ? null : buildTree(reach.data.ous)), [reach.data])
  if (failure(reach) !== undefined) {
    return <Notice heading="This cannot be shown">{sentence(reach.error)}</Notice>
  }
  if (reach.data === undefined || tree === null) {
    return null
  }
  if (reach.data.devices === 0) {
    return (
      <Notice heading="There are no devices yet">
        Rivo has not read a directory with computers in it. As soon as it has, the map of the organisation is shown
        here.
      </Notice>
    )
  }
  const chosen = findNode(tree, address.ou ?? tree.ou.id) ?? tree
  const selected = chosen.ou.id
  return (
    <Flex direction="column" h="100%" px="18px" pt="12px" pb="16px" gap="12px">
      <ReachHead reach={reach.data} address={address} />
      <Flex flex="1" minH="0" gap="20px">
        <Box flex="1" minW="0" h="100%">
          {address.table ? (
            <ReachTable title={title} tree={tree} selected={selected} onSelect={address.select} />
          ) : (
            <ReachMap tree={tree} address={address} selected={selected} />
          )}
        </Box>
        <OuPanel title={title} titleName={reach.data.titleName} ou={chosen.ou} />
      </Flex>
    </Flex>
  )
}
