import { Box, Flex } from '@chakra-ui/react'
import { FormProvider, useFieldArray, useForm, useWatch } from 'react-hook-form'
import { Button } from '../../../shared/ui/Button'
import { FormSelect, FormText } from '../../../shared/ui/fields'
import type { TitlePageData } from '../api/catalogue'
import type { Relation } from '../model/relations'
import { EMPTY_RELATION, RELATION_KINDS, relationsOf, relationsProblem, withRelations } from '../model/relations'
import type { Editing } from '../state/useEdit'
import { EditWindow } from './EditWindow'
import { TitlePicker } from './TitlePicker'

interface Fields {
  readonly lines: readonly Relation[]
}

/** The relations of a release, and the conflicts of its title. */
export function RelationsWindow({
  page,
  version,
  editing,
  onClose,
}: {
  page: TitlePageData
  version: string
  editing: Editing
  onClose: () => void
}) {
  const form = useForm<Fields>({
    mode: 'onChange',
    defaultValues: {
      lines: relationsOf(
        page.record.releases.find(r => r.version === version),
        page.record.conflictsWith,
      ),
    },
  })
  const { control, setValue } = form
  const list = useFieldArray({ control, name: 'lines' })
  const lines = useWatch({ control, name: 'lines' })
  return (
    <FormProvider {...form}>
      <EditWindow
        heading={`Relations of ${page.record.name} ${version}`}
        width="640px"
        editing={editing}
        problem={relationsProblem(lines)}
        onClose={onClose}
        edit={record => withRelations(record, version, lines)}
      >
        {list.fields.map((line, i) => (
          <Flex key={line.id} gap="2.5" align="flex-end" mb="2.5">
            <FormSelect<Fields>
              name={`lines.${i}.kind`}
              label={`Relation ${i + 1}`}
              labelHidden
              options={RELATION_KINDS}
            />
            <Box flex="1">
              <TitlePicker
                label={`Title of relation ${i + 1}`}
                value={lines[i]?.title}
                without={[page.record.id]}
                onChoose={title => setValue(`lines.${i}.title`, title, { shouldDirty: true })}
              />
            </Box>
            {lines[i]?.kind === 'needs' && (
              <Box w="120px">
                <FormText<Fields> name={`lines.${i}.min`} label="Version from" />
              </Box>
            )}
            <Button aria-label={`Delete relation ${i + 1}`} onClick={() => list.remove(i)}>
              Delete
            </Button>
          </Flex>
        ))}
        <Button onClick={() => list.append(EMPTY_RELATION)}>Add a relation</Button>
        <Box color="ink2" textStyle="second" mt="2.5">
          Conflicts hold for every release of the title. A relation that would lead back to itself is refused.
        </Box>
      </EditWindow>
    </FormProvider>
  )
}
