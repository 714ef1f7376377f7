import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { sentence } from '../../../shared/api'
import { count } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import { Window } from '../../../shared/ui/Window'
import { CountedDevice } from '../../draft'
import type { Written } from '../api/assign'
import { useTriedDevices } from '../api/assign'

const STEP = 200

interface Props {
  written: Written
  part: string
  heading: string
  onClose: () => void
}

/** The devices that a figure of the sheet counts. */
export function TriedWindow({ written, part, heading, onClose }: Props) {
  const [limit, setLimit] = useState(STEP)
  const found = useTriedDevices(written, part, limit)
  return (
    <Window open onClose={onClose} heading={heading} width="640px" keepsNothing>
      {found.isError && <Box color="trouble">{sentence(found.error)}</Box>}
      {found.data === undefined && !found.isError && <Box color="ink3">Counting…</Box>}
      {found.data?.total === 0 && <Box color="ink2">No device.</Box>}
      {found.data?.devices.map(device => (
        <CountedDevice key={`${device.id} ${device.title}`} device={device} />
      ))}
      {found.data !== undefined && found.data.devices.length < found.data.total && (
        <Button mt="2.5" onClick={() => setLimit(limit + STEP)} loading={found.isFetching}>
          Show {count(Math.min(STEP, found.data.total - found.data.devices.length))} more of {count(found.data.total)}
        </Button>
      )}
    </Window>
  )
}
