import { Grid } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { Button } from '../../../shared/ui/Button'
import { FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import type { QuietHours } from '../api/windows'
import { useDeleteQuietHours, usePutQuietHours } from '../api/windows'

interface Fields {
  from: string
  to: string
}

const TIME = { pattern: { value: /^\s*([01]\d|2[0-3]):[0-5]\d\s*$/, message: 'A time of day, such as 20:30.' } }

/** When people are not disturbed. */
export function QuietHoursWindow({ hours, onClose }: { hours: QuietHours; onClose: () => void }) {
  const put = usePutQuietHours()
  const remove = useDeleteQuietHours()
  const form = useForm<Fields>({ defaultValues: { from: hours.from ?? '20:00', to: hours.to ?? '07:00' } })
  const save = async (written: Fields) => {
    await put.mutateAsync({ from: written.from.trim(), to: written.to.trim() })
    onClose()
  }
  return (
    <FormWindow
      heading="Quiet hours"
      form={form}
      onSubmit={save}
      onClose={onClose}
      note="What people would be told meanwhile waits until they are over. What counts down is shown all the same."
      {...(hours.from !== undefined && {
        aside: (
          <Button size="lg" loading={remove.isPending} onClick={() => remove.mutate(undefined, { onSuccess: onClose })}>
            No quiet hours
          </Button>
        ),
      })}
    >
      <Grid templateColumns="1fr 1fr" gap="4">
        <FormText<Fields> name="from" label="From" hint="By each device’s own clock" required rules={TIME} />
        <FormText<Fields>
          name="to"
          label="To"
          hint="Of the next day where it is earlier"
          required
          rules={{
            ...TIME,
            validate: (to, all) =>
              String(to).trim() !== all.from.trim() || 'They would never end; choose another time.',
          }}
        />
      </Grid>
    </FormWindow>
  )
}
