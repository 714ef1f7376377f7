import { Box, Flex, Grid } from '@chakra-ui/react'
import { useForm, useController, useFormContext } from 'react-hook-form'
import { idOf } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import { FormNumber, FormRule, FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import type { MaintenanceWindow } from '../api/windows'
import { useDeleteWindow, usePutWindow } from '../api/windows'
import type { Day } from '../model/words'
import { DAYS } from '../model/words'

interface Fields {
  name: string
  fits: string
  days: readonly Day[]
  opens: string
  minutes: string
}

const LONGEST_MINUTES = 1440

/** A maintenance window: for whom, and when. */
export function WindowWindow({ window, onClose }: { window: MaintenanceWindow | undefined; onClose: () => void }) {
  const put = usePutWindow()
  const remove = useDeleteWindow()
  const form = useForm<Fields>({
    defaultValues: {
      name: window?.name ?? '',
      fits: window?.fits ?? '',
      days: window?.days ?? [],
      opens: window?.opens ?? '22:00',
      minutes: String(window?.minutes ?? 120),
    },
  })
  const save = async (written: Fields) => {
    await put.mutateAsync({
      id: window?.id ?? idOf(written.name),
      name: written.name.trim(),
      ...(written.fits.trim() !== '' && { fits: written.fits.trim() }),
      days: [...written.days],
      opens: written.opens.trim(),
      minutes: Number(written.minutes),
    })
    onClose()
  }
  return (
    <FormWindow
      heading={window === undefined ? 'A new window' : `Edit ${window.name}`}
      form={form}
      onSubmit={save}
      onClose={onClose}
      {...(window !== undefined && {
        aside: (
          <Button size="lg" loading={remove.isPending} onClick={() => remove.mutate(window.id, { onSuccess: onClose })}>
            Delete
          </Button>
        ),
      })}
    >
      <Grid gap="2.5">
        <FormText<Fields>
          name="name"
          label="Name"
          required
          rules={{ validate: name => idOf(String(name)) !== '' || 'Give it a name with letters or digits.' }}
        />
        <FormRule<Fields> name="fits" hint={'Such as ou co "ou=Control room"'} />
        <Days />
        <Grid templateColumns="1fr 1fr" gap="4">
          <FormText<Fields>
            name="opens"
            label="At"
            hint="By the device’s own clock: 22:30"
            rules={{ pattern: { value: /^\s*([01]\d|2[0-3]):[0-5]\d\s*$/, message: 'A time of day, such as 22:30.' } }}
          />
          <FormNumber<Fields>
            name="minutes"
            label="For, in minutes"
            hint="Up to a day, past midnight too"
            min={1}
            max={LONGEST_MINUTES}
            rules={{
              validate: minutes => {
                const n = Number(minutes)
                return (
                  (Number.isInteger(n) && n >= 1 && n <= LONGEST_MINUTES) ||
                  `A whole number from 1 to ${LONGEST_MINUTES}, which is a day.`
                )
              },
            }}
          />
        </Grid>
      </Grid>
    </FormWindow>
  )
}

function Days() {
  const { control } = useFormContext<Fields>()
  const { field, fieldState } = useController({
    control,
    name: 'days',
    rules: { validate: days => days.length > 0 || 'Choose at least one day.' },
  })
  return (
    <Box>
      <Box fontWeight="600" textStyle="compact" mb="1.5">
        Opens on
      </Box>
      <Flex gap="1.5" wrap="wrap" role="group" aria-label="Days">
        {DAYS.map(([day, words]) => {
          const on = field.value.includes(day)
          return (
            <Button
              key={day}
              size="sm"
              variant={on ? 'chosen' : 'plain'}
              aria-pressed={on}
              onClick={() => field.onChange(on ? field.value.filter(one => one !== day) : [...field.value, day])}
            >
              {words}
            </Button>
          )
        })}
      </Flex>
      {fieldState.error !== undefined && (
        <Box role="alert" color="trouble" textStyle="second" mt="1">
          {fieldState.error.message}
        </Box>
      )}
    </Box>
  )
}
