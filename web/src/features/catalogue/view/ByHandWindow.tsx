import { Box, Grid } from '@chakra-ui/react'
import { useController, useForm, useWatch } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { FormRule, FormText } from '../../../shared/ui/fields'
import { FormWindow } from '../../../shared/ui/FormWindow'
import { Segments } from '../../../shared/ui/Segments'
import type { TitleRecord } from '../api/catalogue'
import { useSaveTitle } from '../api/catalogue'
import type { Written } from '../model/byHand'
import { InstalledForField } from './InstalledForField'
import { asPage, problemsOf, writtenRelease, writtenTitle } from '../model/byHand'

const NOTHING: Written = {
  name: '',
  maker: '',
  version: '',
  fits: '',
  install: '',
  remove: '',
  seenBy: '',
  scope: 'device',
  web: undefined,
}

interface Props {
  /** The title that gets a release; without one a new title is made. */
  title: { readonly record: TitleRecord; readonly revision: number } | undefined
  onClose: () => void
}

/** A title or release that comes without a file: commands are enough. */
export function ByHandWindow({ title, onClose }: Props) {
  const navigate = useNavigate()
  const save = useSaveTitle()
  const form = useForm<Written>({
    defaultValues: title === undefined ? NOTHING : before(title.record),
    resolver: all => {
      const written = all.web === undefined ? all : asPage(all)
      const errors = problemsOf(written)
      return Object.keys(errors).length === 0
        ? { values: written, errors: {} }
        : {
            values: {},
            errors: Object.fromEntries(
              Object.entries(errors).map(([field, message]) => [field, { type: 'rule', message }]),
            ),
          }
    },
  })
  const isPage = useWatch({ control: form.control, name: 'web' }) !== undefined
  const put = async (written: Written) => {
    const record =
      title === undefined
        ? writtenTitle(written)
        : { ...title.record, releases: [...title.record.releases, writtenRelease(written)] }
    await save.mutateAsync({ record, revision: title?.revision ?? 0 })
    // In the place of the window, so that Back does not open it again.
    void navigate(`/catalogue/${encodeURIComponent(record.id)}?release=${encodeURIComponent(written.version.trim())}`, {
      replace: true,
    })
  }
  return (
    <FormWindow
      heading={title === undefined ? 'A title without a file' : `A release of ${title.record.name} without a file`}
      width="640px"
      form={form}
      save="Add to the catalogue"
      note="No device gets it until it is offered."
      onSubmit={put}
      onClose={onClose}
    >
      <Grid gap="2.5">
        {title === undefined && (
          <Grid templateColumns="1fr 1fr" gap="4">
            <FormText<Written> name="name" label="Name" required />
            <FormText<Written> name="maker" label="Maker" />
          </Grid>
        )}
        {title === undefined && <IsPage />}
        {isPage ? (
          <>
            <FormText<Written>
              name="web"
              label="Address"
              required
              hint="Whoever is offered it opens this from their shelf: https://rota.quillbrook.example/"
            />
            <FormRule<Written> name="fits" rows={1} />
          </>
        ) : (
          <ProgramFields isNew={title === undefined} />
        )}
      </Grid>
    </FormWindow>
  )
}

/** Whether it is a web page, which installs nothing. */
function IsPage() {
  const { field } = useController<Written, 'web'>({ name: 'web' })
  return (
    <Box>
      <Segments
        label="What it is"
        value={field.value === undefined ? 'program' : 'page'}
        choices={[
          { value: 'program', words: 'A program' },
          { value: 'page', words: 'A web page' },
        ]}
        onChange={is => field.onChange(is === 'page' ? '' : undefined)}
      />
    </Box>
  )
}

function ProgramFields({ isNew }: { isNew: boolean }) {
  return (
    <>
      {isNew && <InstalledFor />}
      <Grid templateColumns="160px 1fr" gap="4">
        <FormText<Written> name="version" label="Version" required />
        <FormRule<Written> name="fits" rows={1} />
      </Grid>
      <FormText<Written>
        name="install"
        label="Install command"
        mono
        rows={2}
        hint="A silent command line; empty if the title is only ever removed"
      />
      <FormText<Written>
        name="remove"
        label="Removal command"
        mono
        rows={2}
        hint="{uninstaller:NAME} is the removal command that the device itself knows for a program"
      />
      <FormText<Written>
        name="seenBy"
        label="Presence check: its name in the list of installed software"
        hint="Empty: its status stays unverified until a check is added on its page"
      />
    </>
  )
}

function InstalledFor() {
  const { field } = useController<Written, 'scope'>({ name: 'scope' })
  return <InstalledForField scope={field.value} onChange={field.onChange} />
}

/** What the release before it says, for whoever writes the next. */
function before(record: TitleRecord): Written {
  const variant = record.releases.at(-1)?.variants[0]
  return {
    ...NOTHING,
    name: record.name,
    maker: record.maker,
    scope: record.scope,
    fits: variant?.fits ?? '',
    install: variant?.contents.length === 0 ? (variant.install[0]?.command ?? '') : '',
    remove: variant?.remove[0]?.command ?? '',
    seenBy: variant?.presence.checks.find(check => check.kind === 'inventory')?.subject ?? '',
  }
}
