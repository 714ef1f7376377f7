import { Box } from '@chakra-ui/react'
import type { ComponentProps } from 'react'
import { count } from '../../../shared/format'
import { PanelPart } from '../../../shared/ui/Panel'
import type { Which } from '../api/requests'
import { useRequests } from '../api/requests'
import { RequestList } from './RequestList'

interface Props {
  which: Which
  without: NonNullable<ComponentProps<typeof RequestList>['without']>
}

const MOST = 20

/** What was asked for and taken from the shelf, as a part of the page of a person or title; nothing where nothing was. */
export function RequestsPart({ which, without }: Props) {
  const requests = useRequests({ ...which, limit: MOST })
  const { total = 0, rows = [] } = requests.data ?? {}
  if (total === 0) {
    return null
  }
  return (
    <PanelPart heading="Taken from the shelf" aside={count(total)}>
      <RequestList rows={rows} without={without} />
      {total > MOST && (
        <Box color="ink2" textStyle="second" mt="1">
          and {count(total - MOST)} before these
        </Box>
      )}
    </PanelPart>
  )
}
