import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { TextField } from '../../../shared/TextField'
import { Window } from '../../../shared/Window'
import type { TitleRecord } from '../api/catalogue'
import { useSaveTitle } from '../api/catalogue'
import type { Written } from '../model/byHand'
import { problemOf, writtenRelease, writtenTitle } from '../model/byHand'

const NOTHING: Written = { name: '', maker: '', version: '', fits: '', install: '', remove: '', seenBy: '' }

interface Props {
  /** The title that gets a release; without one a new title is made. */
  title: { readonly record: TitleRecord; readonly revision: number } | undefined
  onClose: () => void
}

/** A title or release that comes without a file: commands are enough. */
export function ByHandWindow({ title, onClose }: Props) {
  const navigate = useNavigate()
  const [written, setWritten] = useState<Written>(title === undefined ? NOTHING : before(title.record))
  const [tried, setTried] = useState(false)
  const save = useSaveTitle(id => {
    onClose()
    void navigate(`/catalogue/${encodeURIComponent(id)}?release=${encodeURIComponent(written.version.trim())}`)
  })
  const set = (change: Partial<Written>) => setWritten({ ...written, ...change })
  const problem = tried ? problemOf(written) : undefined
  const said = problem ?? (save.isError ? sentence(save.error) : undefined)
  const put = () => {
    setTried(true)
    if (problemOf(written) === undefined) {
      save.mutate(
        title === undefined
          ? { record: writtenTitle(written), revision: 0 }
          : {
              record: { ...title.record, releases: [...title.record.releases, writtenRelease(written)] },
              revision: title.revision,
            },
      )
    }
  }
  return (
    <Window
      open
      onClose={onClose}
      heading={title === undefined ? 'A title without a file' : `A release of ${title.record.name} without a file`}
      width="640px"
      foot={
        <Flex gap="8px" align="center" w="100%">
          <Box
            flex="1"
            fontSize="13px"
            color={said === undefined ? 'ink2' : 'trouble'}
            role={said === undefined ? undefined : 'alert'}
          >
            {said ?? 'No device gets it until it is offered.'}
          </Box>
          <Button size="lg" onClick={onClose}>
            Cancel
          </Button>
          <Button size="lg" variant="chosen" loading={save.isPending} onClick={put}>
            Add to the catalogue
          </Button>
        </Flex>
      }
    >
      <Grid gap="10px">
        {title === undefined && (
          <Grid templateColumns="1fr 1fr" gap="16px">
            <TextField label="Name" value={written.name} required onChange={name => set({ name })} />
            <TextField label="Maker" value={written.maker} onChange={maker => set({ maker })} />
          </Grid>
        )}
        <Grid templateColumns="160px 1fr" gap="16px">
          <TextField label="Version" value={written.version} required onChange={version => set({ version })} />
          <TextField
            label="Devices where"
            mono
            value={written.fits}
            hint="A rule; empty: every device"
            onChange={fits => set({ fits })}
          />
        </Grid>
        <TextField
          label="Install command"
          mono
          rows={2}
          value={written.install}
          hint="A silent command line; empty if the title is only ever removed"
          onChange={install => set({ install })}
        />
        <TextField
          label="Removal command"
          mono
          rows={2}
          value={written.remove}
          hint="{uninstaller:NAME} is the removal command that the device itself knows for a program"
          onChange={remove => set({ remove })}
        />
        <TextField
          label="Presence check: its name in the list of installed software"
          value={written.seenBy}
          hint="Empty: its status stays unverified until a check is added on its page"
          onChange={seenBy => set({ seenBy })}
        />
      </Grid>
    </Window>
  )
}

/** What the release before it says, for whoever writes the next. */
function before(record: TitleRecord): Written {
  const variant = record.releases.at(-1)?.variants[0]
  return {
    ...NOTHING,
    name: record.name,
    maker: record.maker,
    fits: variant?.fits ?? '',
    install: variant?.contents.length === 0 ? (variant.install[0]?.command ?? '') : '',
    remove: variant?.remove[0]?.command ?? '',
    seenBy: variant?.presence.checks.find(check => check.kind === 'inventory')?.subject ?? '',
  }
}
