import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { idOf } from '../../../shared/format'
import { TextField } from '../../../shared/TextField'
import { Window } from '../../../shared/Window'
import type { MaintenanceWindow } from '../api/windows'
import { useDeleteWindow, usePutWindow } from '../api/windows'
import type { Day } from '../model/words'
import { DAYS } from '../model/words'

/** A maintenance window: for whom, and when. */
export function WindowWindow({ window, onClose }: { window: MaintenanceWindow | undefined; onClose: () => void }) {
  const put = usePutWindow()
  const remove = useDeleteWindow()
  const [name, setName] = useState(window?.name ?? '')
  const [fits, setFits] = useState(window?.fits ?? '')
  const [days, setDays] = useState<readonly Day[]>(window?.days ?? [])
  const [opens, setOpens] = useState(window?.opens ?? '22:00')
  const [minutes, setMinutes] = useState(String(window?.minutes ?? 120))
  const id = window?.id ?? idOf(name)
  const trouble = put.error ?? remove.error
  const save = () =>
    put.mutate(
      {
        id,
        name: name.trim(),
        ...(fits.trim() !== '' && { fits: fits.trim() }),
        days: [...days],
        opens: opens.trim(),
        minutes: /^\d{1,5}$/.test(minutes.trim()) ? Number(minutes) : 0,
      },
      { onSuccess: onClose },
    )
  return (
    <Window
      open
      onClose={onClose}
      heading={window === undefined ? 'A new window' : `Edit ${window.name}`}
      width="560px"
      foot={
        <Flex gap="8px" align="center" w="100%">
          <Box flex="1" fontSize="13px" color="trouble" role={trouble === null ? undefined : 'alert'}>
            {trouble !== null && sentence(trouble)}
          </Box>
          {window !== undefined && (
            <Button size="lg" loading={remove.isPending} onClick={() => remove.mutate(id, { onSuccess: onClose })}>
              Delete
            </Button>
          )}
          <Button size="lg" onClick={onClose}>
            Cancel
          </Button>
          <Button size="lg" variant="chosen" loading={put.isPending} disabled={id === ''} onClick={save}>
            Save
          </Button>
        </Flex>
      }
    >
      <Grid gap="10px">
        <TextField label="Name" value={name} required onChange={setName} />
        <TextField
          label="Devices where"
          mono
          rows={2}
          value={fits}
          hint={'A rule, such as ou co "ou=Control room"; empty: every device'}
          onChange={setFits}
        />
        <Box>
          <Box fontWeight="600" fontSize="13px" mb="6px">
            Opens on
          </Box>
          <Flex gap="6px" role="group" aria-label="Days">
            {DAYS.map(([day, words]) => {
              const on = days.includes(day)
              return (
                <Button
                  key={day}
                  h="28px"
                  variant={on ? 'chosen' : 'plain'}
                  aria-pressed={on}
                  onClick={() => setDays(on ? days.filter(one => one !== day) : [...days, day])}
                >
                  {words}
                </Button>
              )
            })}
          </Flex>
        </Box>
        <Grid templateColumns="1fr 1fr" gap="16px">
          <TextField label="At" value={opens} hint="By the device’s own clock: 22:30" onChange={setOpens} />
          <TextField
            label="For, in minutes"
            value={minutes}
            hint="Up to a day, past midnight too"
            onChange={setMinutes}
          />
        </Grid>
      </Grid>
    </Window>
  )
}
