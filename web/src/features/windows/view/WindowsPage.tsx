import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { some } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { Button } from '../../../shared/ui/Button'
import { Kbd } from '../../../shared/ui/Kbd'
import { ListRow } from '../../../shared/ui/ListRow'
import { Notice } from '../../../shared/ui/Notice'
import { Page } from '../../../shared/ui/Page'
import { PageHead } from '../../../shared/ui/PageHead'
import { Panel } from '../../../shared/ui/Panel'
import { QueryState } from '../../../shared/ui/QueryState'
import { useOpenWindow } from '../../../shared/useAddressState'
import type { QuietHours, WindowLine } from '../api/windows'
import { useQuietHours, useWindows } from '../api/windows'
import { openWords } from '../model/words'

const WindowWindow = lazy(() => import('./WindowWindow').then(part => ({ default: part.WindowWindow })))

const QuietHoursWindow = lazy(() => import('./QuietHoursWindow').then(part => ({ default: part.QuietHoursWindow })))

const EDIT = 'edit:'
const QUIET = 'quiet-hours'

/** When may devices work? */
export function WindowsPage() {
  const windows = useWindows()
  const quiet = useQuietHours()
  const [open, setOpen] = useOpenWindow()
  useKeys('Maintenance windows', [{ key: 'n', says: 'Add a window', act: () => setOpen('new') }])
  const edited = (windows.data ?? []).find(line => `${EDIT}${line.window.id}` === open)
  return (
    <Page>
      <PageHead heading="Maintenance windows">
        <Box flex="1" minW="0" color="ink2" textStyle="compact">
          When devices may install and remove software, by their own clocks. A device that is in no window may do so at
          any time.
        </Box>
        <Button onClick={() => setOpen('new')}>
          Add a window <Kbd>N</Kbd>
        </Button>
      </PageHead>
      <Panel data-list="" flex="1" minH="0" overflowY="auto">
        <QueryState query={windows} failed="The windows cannot be shown">
          {lines =>
            lines.length === 0 ? (
              <Notice heading="No maintenance windows: devices install and remove at any time">
                Add one for devices that must not be interrupted: control rooms, benches that measure through the day.
              </Notice>
            ) : (
              lines.map(line => (
                <Row key={line.window.id} line={line} onOpen={() => setOpen(`${EDIT}${line.window.id}`)} />
              ))
            )
          }
        </QueryState>
      </Panel>
      <QuietHoursLine hours={quiet.data} onOpen={() => setOpen(QUIET)} />
      {open === QUIET && quiet.data !== undefined && (
        <Suspense fallback={null}>
          <QuietHoursWindow hours={quiet.data} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {(open === 'new' || edited !== undefined) && (
        <Suspense fallback={null}>
          <WindowWindow key={open} window={edited?.window} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
    </Page>
  )
}

/** When people are not disturbed, whatever devices do. */
function QuietHoursLine({ hours, onOpen }: { hours: QuietHours | undefined; onOpen: () => void }) {
  return (
    <Panel as="section" aria-label="Quiet hours" mt="3">
      <Flex align="center" gap="3.5" px="4" py="2">
        <Box flex="1" minW="0">
          <b>Quiet hours</b>
          <Box as="span" color="ink2" ml="2.5">
            {hours === undefined
              ? ''
              : hours.from === undefined
                ? 'none: people are told and asked at any time'
                : `${hours.from} to ${hours.to}, by each device’s own clock: people are told nothing then that does not count down`}
          </Box>
        </Box>
        <Button onClick={onOpen} disabled={hours === undefined} aria-label="Edit quiet hours">
          Edit
        </Button>
      </Flex>
    </Panel>
  )
}

function Row({ line, onOpen }: { line: WindowLine; onOpen: () => void }) {
  const { window } = line
  return (
    <ListRow name={window.name} below={window.fits ?? 'every device'}>
      <Box w="260px">{openWords(window)}</Box>
      <Box w="110px" color="ink2" textAlign="right">
        {some(line.devices, 'device')}
      </Box>
      <Button onClick={onOpen} aria-label={`Edit ${window.name}`}>
        Edit
      </Button>
    </ListRow>
  )
}
