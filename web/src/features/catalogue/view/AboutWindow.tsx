import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm, useWatch } from 'react-hook-form'
import { FormText, Tick } from '../../../shared/ui/fields'
import type { TitleRecord } from '../api/catalogue'
import { isWebAddress } from '../model/byHand'
import { reworded } from '../model/record'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import { IconField } from './IconField'
import { InstalledForField } from './InstalledForField'

interface Fields {
  name: string
  maker: string
  seats: string
  about: TitleRecord['about']
  scope: TitleRecord['scope']
  asks: TitleRecord['asks']
}

const LINES = [
  ['about.owner', 'Owner'],
  ['about.category', 'Category'],
  ['about.information', 'Information page'],
  ['about.privacy', 'Privacy page'],
  ['about.approvedBy', 'Approved by change'],
] as const

interface Props {
  record: TitleRecord
  editing: Editing
  onClose: () => void
}

/** What is said of a title. */
export function AboutWindow({ record, editing, onClose }: Props) {
  const [before] = useState(record)
  const form = useForm<Fields>({
    mode: 'onChange',
    defaultValues: {
      name: record.name,
      maker: record.maker,
      seats: record.seats === undefined ? '' : String(record.seats),
      about: record.about,
      scope: record.scope,
      asks: record.asks,
    },
  })
  const written = useWatch({ control: form.control, compute: (fields: Fields) => fields })
  const { errors } = form.formState
  const problem = errors.name?.message ?? errors.seats?.message ?? errors.about?.web?.message
  return (
    <FormProvider {...form}>
      <EditWindow
        heading={`About ${record.name}`}
        width="680px"
        editing={editing}
        problem={problem}
        onClose={onClose}
        edit={newest => reworded(newest, before, written, written.seats)}
      >
        <Grid templateColumns="1fr 1fr" rowGap="2.5" columnGap="4">
          <FormText<Fields>
            name="name"
            label="Name"
            required
            rules={{ pattern: { value: /\S/, message: 'Give it a name.' }, required: 'Give it a name.' }}
          />
          <FormText<Fields> name="maker" label="Maker" />
          {record.about.web !== '' && (
            <FormText<Fields>
              name="about.web"
              label="Address of the web page"
              required
              rules={{
                validate: web =>
                  (typeof web === 'string' && isWebAddress(web)) || 'Write its whole address, with https:// before it.',
              }}
            />
          )}
          {LINES.map(([name, label]) => (
            <FormText<Fields> key={name} name={name} label={label} />
          ))}
          <FormText<Fields>
            name="seats"
            label="Licence seats"
            hint="Empty: not counted"
            rules={{
              pattern: {
                value: /^\s*\d{0,7}\s*$/,
                message: 'Seats are a whole number, or empty where they are not counted.',
              },
            }}
          />
        </Grid>
        <Grid gap="2.5" mt="2.5">
          <FormText<Fields>
            name="about.description"
            label="Description"
            rows={2}
            hint="For the people who will read it on the shelf"
          />
          <InstalledForField
            scope={written.scope}
            onChange={scope => form.setValue('scope', scope, { shouldDirty: true })}
          />
          <IconField
            name={written.name}
            icon={written.about.icon}
            onChange={icon => form.setValue('about.icon', icon, { shouldDirty: true })}
          />
          <Box>
            <Box fontWeight="600" textStyle="compact" mb="1.5">
              Taken from the shelf
            </Box>
            <Flex columnGap="5" rowGap="1.5" wrap="wrap">
              <Tick
                label="Somebody has to agree first"
                on={written.asks.approval}
                onChange={approval => form.setValue('asks.approval', approval, { shouldDirty: true })}
              />
              <Tick
                label="Each person accepts its licence"
                on={written.asks.licence}
                onChange={licence => form.setValue('asks.licence', licence, { shouldDirty: true })}
              />
            </Flex>
          </Box>
          <FormText<Fields>
            name="about.licence"
            label="Licence text"
            rows={2}
            hint="If there is one, somebody has to accept it before the title is assigned"
          />
          <FormText<Fields> name="about.notes" label="Notes" rows={2} />
        </Grid>
      </EditWindow>
    </FormProvider>
  )
}
