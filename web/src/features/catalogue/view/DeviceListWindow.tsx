import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { whole } from '../../../shared/address'
import { useAddressState } from '../../../shared/useAddressState'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { Window } from '../../../shared/ui/Window'
import { useMisfits, useSeats } from '../api/rights'

const STEP = 200
const MOST = 1_000_000
const ROWS = { rows: whole(STEP, MOST) }

interface Line {
  readonly device: string
  readonly name: string
  readonly words: string
}

/** The devices behind a number, each a link to its page. */
function Devices({
  lines,
  total,
  more,
  empty,
}: {
  lines: readonly Line[]
  total: number
  more: () => void
  empty: string
}) {
  return (
    <>
      {lines.length === 0 && <Box color="ink2">{empty}</Box>}
      {lines.map(line => (
        <Flex key={line.device} gap="3" py="1.5" borderTopWidth="1px" borderColor="line">
          <Box w="140px" flexShrink="0" fontWeight="600" css={{ '& a:hover': { textDecoration: 'underline' } }}>
            <Link to={`/fleet/${encodeURIComponent(line.device)}`}>{line.name}</Link>
          </Box>
          <Box color="ink2" overflowWrap="anywhere" minW="0">
            {line.words}
          </Box>
        </Flex>
      ))}
      {lines.length < total && (
        <Button mt="2.5" onClick={more}>
          Show {count(Math.min(STEP, total - lines.length))} more of {count(total)}
        </Button>
      )}
    </>
  )
}

function Frame({
  heading,
  trouble,
  onClose,
  children,
}: {
  heading: string
  trouble: unknown
  onClose: () => void
  children: ReactNode
}) {
  return (
    <Window open onClose={onClose} heading={heading} width="720px">
      {trouble === null ? children : <Box color="trouble">{sentence(trouble)}</Box>}
    </Window>
  )
}

const STATES: Record<string, string> = {
  held: 'has it',
  coming: 'a seat is reserved for it',
  waiting: 'waits for a seat',
}

/** Who holds the seats of a licence. */
export function SeatsWindow({ title, name, onClose }: { title: string; name: string; onClose: () => void }) {
  const [{ rows: limit }, change] = useAddressState(ROWS)
  const seats = useSeats(title, limit)
  const data = seats.data
  return (
    <Frame heading={`Who holds the seats of ${name}`} trouble={seats.error} onClose={onClose}>
      {data !== undefined && (
        <>
          <Box mb="2.5" color="ink2">
            {some(data.seats ?? 0, 'seat')}: <b>{count(data.held)}</b> held, <b>{count(data.coming)}</b> reserved for
            devices that are to get it, <b>{count(Math.max(0, (data.seats ?? 0) - data.held - data.coming))}</b> free;{' '}
            {some(data.waiting, 'device')} without one. Those that have it come first, then by the device’s id.
          </Box>
          <Devices
            lines={data.holders.map(holder => ({
              device: holder.device,
              name: holder.name,
              words: [STATES[holder.state] ?? holder.state, holder.version, holder.people.join(', ')]
                .filter(part => part !== undefined && part !== '')
                .join(' · '),
            }))}
            total={data.held + data.coming + data.waiting}
            more={() => change({ rows: limit + STEP })}
            empty="Nobody: it is required on no device."
          />
        </>
      )}
    </Frame>
  )
}

/** Which devices nothing of a release fits, and why. */
export function MisfitsWindow({ title, version, onClose }: { title: string; version: string; onClose: () => void }) {
  const [{ rows: limit }, change] = useAddressState(ROWS)
  const misfits = useMisfits(title, version, limit)
  return (
    <Frame heading={`No variant of ${version} fits`} trouble={misfits.error} onClose={onClose}>
      {misfits.data !== undefined && (
        <Devices
          lines={misfits.data.devices.map(one => ({ device: one.device, name: one.name, words: one.why }))}
          total={misfits.data.total}
          more={() => change({ rows: limit + STEP })}
          empty="None: a variant fits every device."
        />
      )}
    </Frame>
  )
}
