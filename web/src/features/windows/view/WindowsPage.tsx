import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { some } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/Notice'
import type { MaintenanceWindow, WindowLine } from '../api/windows'
import { useWindows } from '../api/windows'
import { openWords } from '../model/words'
import { WindowWindow } from './WindowWindow'

/** When may devices work? */
export function WindowsPage() {
  const windows = useWindows()
  const [open, setOpen] = useState<MaintenanceWindow | 'new' | undefined>(undefined)
  useEffect(() => {
    document.title = 'Maintenance windows · Rivo'
  }, [])
  useKeys('Maintenance windows', [{ key: 'n', says: 'Add a window', act: () => setOpen('new') }])
  if (failure(windows) !== undefined) {
    return <Notice heading="The windows cannot be shown">{sentence(windows.error)}</Notice>
  }
  return (
    <Flex direction="column" h="100%" px="18px" pt="14px" pb="16px" gap="12px">
      <Flex align="center" gap="14px">
        <Box flex="1" minW="0">
          <Box as="h1" fontSize="20px" fontWeight="700">
            Maintenance windows
          </Box>
          <Box color="ink2" fontSize="13px">
            When devices may install and remove software, by their own clocks. A device that is in no window may do so
            at any time.
          </Box>
        </Box>
        <Button onClick={() => setOpen('new')}>
          Add a window <Kbd>N</Kbd>
        </Button>
      </Flex>
      <Box flex="1" minH="0" overflowY="auto" bg="panel" borderWidth="1px" borderColor="line" borderRadius="8px">
        {windows.data?.length === 0 && (
          <Notice heading="No maintenance windows: devices install and remove at any time">
            Add one for devices that must not be interrupted: control rooms, benches that measure through the day.
          </Notice>
        )}
        {(windows.data ?? []).map(line => (
          <Row key={line.window.id} line={line} onOpen={() => setOpen(line.window)} />
        ))}
      </Box>
      {open !== undefined && (
        <WindowWindow window={open === 'new' ? undefined : open} onClose={() => setOpen(undefined)} />
      )}
    </Flex>
  )
}

function Row({ line, onOpen }: { line: WindowLine; onOpen: () => void }) {
  const { window } = line
  return (
    <Flex
      as="section"
      aria-label={window.name}
      align="center"
      gap="14px"
      px="16px"
      py="9px"
      borderBottomWidth="1px"
      borderColor="line"
    >
      <Box flex="1" minW="0">
        <Box fontWeight="600" truncate>
          {window.name}
        </Box>
        <Box as="code" fontFamily="mono" fontSize="12px" color="ink2" overflowWrap="anywhere">
          {window.fits ?? 'every device'}
        </Box>
      </Box>
      <Box w="260px">{openWords(window)}</Box>
      <Box w="110px" color="ink2" textAlign="right">
        {some(line.devices, 'device')}
      </Box>
      <Button onClick={onOpen} aria-label={`Edit ${window.name}`}>
        Edit
      </Button>
    </Flex>
  )
}
