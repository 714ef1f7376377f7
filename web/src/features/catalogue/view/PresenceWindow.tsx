import { Box, Flex } from '@chakra-ui/react'
import { FormProvider, useFieldArray, useForm, useWatch } from 'react-hook-form'
import { Button } from '../../../shared/ui/Button'
import { FormSelect, FormText } from '../../../shared/ui/fields'
import { SelectField } from '../../../shared/ui/SelectField'
import type { VariantRecord } from '../api/catalogue'
import type { PresenceFields } from '../model/presence'
import { EMPTY_CHECK, filledChecks, PRESENCE_KINDS, presenceProblem, subjectProblem } from '../model/presence'
import type { Spot } from '../model/record'
import { withVariant } from '../model/record'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'

interface Props {
  spot: Spot
  presence: VariantRecord['presence']
  editing: Editing
  onClose: () => void
}

/** By what one sees that it is there. */
export function PresenceWindow({ spot, presence, editing, onClose }: Props) {
  const form = useForm<PresenceFields>({
    mode: 'onChange',
    defaultValues: { any: presence.any, checks: presence.checks.length === 0 ? [EMPTY_CHECK] : presence.checks },
  })
  const { control, setValue } = form
  const list = useFieldArray({ control, name: 'checks' })
  const written = useWatch({ control, compute: (fields: PresenceFields) => fields })
  const filled = filledChecks(written.checks)
  return (
    <FormProvider {...form}>
      <EditWindow
        heading="Presence check"
        width="720px"
        editing={editing}
        problem={presenceProblem(written.checks)}
        onClose={onClose}
        edit={record =>
          withVariant(record, spot, variant => ({ ...variant, presence: { any: written.any, checks: filled } }))
        }
      >
        {list.fields.map((line, i) => (
          <Flex key={line.id} gap="2.5" align="flex-start" mb="2.5">
            <FormSelect<PresenceFields>
              name={`checks.${i}.kind`}
              label={`Check ${i + 1}`}
              options={Object.entries(PRESENCE_KINDS)}
            />
            <Box flex="1">
              <FormText<PresenceFields>
                name={`checks.${i}.subject`}
                label="Name, path or code"
                mono
                rules={{ validate: (_, fields) => problemOf(fields, i) ?? true, deps: [`checks.${i}.version`] }}
              />
            </Box>
            <Box w="130px">
              <FormText<PresenceFields>
                name={`checks.${i}.version`}
                label="Version from"
                rules={{ deps: [`checks.${i}.subject`] }}
              />
            </Box>
            <Button mt="6" aria-label={`Delete check ${i + 1}`} onClick={() => list.remove(i)}>
              Delete
            </Button>
          </Flex>
        ))}
        <Flex gap="3" align="center">
          <Button onClick={() => list.append(EMPTY_CHECK)}>Add a check</Button>
          {list.fields.length > 1 && (
            <SelectField
              label="How many"
              labelHidden
              value={written.any ? 'any' : 'all'}
              options={[
                ['all', 'all checks must hold'],
                ['any', 'any check is enough'],
              ]}
              onChange={value => setValue('any', value === 'any', { shouldDirty: true })}
            />
          )}
          {filled.length === 0 && (
            <Box color="ochre" textStyle="compact">
              Without a presence check its status is unverified.
            </Box>
          )}
        </Flex>
      </EditWindow>
    </FormProvider>
  )
}

function problemOf(fields: PresenceFields, at: number): string | undefined {
  const check = fields.checks[at]
  return check === undefined ? undefined : subjectProblem(check)
}
