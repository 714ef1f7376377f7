import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { sentence } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import { useSettled } from '../../../shared/useSettled'
import { Button } from '../../../shared/ui/Button'
import { TextField } from '../../../shared/ui/TextField'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
import type { HostsFound } from '../api/audiences'
import { useHosts } from '../api/audiences'

interface Props {
  heading: string
  /** Told the ids and the names of those that were found. */
  onFound: (devices: readonly { readonly id: string; readonly name: string }[]) => void
  onClose: () => void
}

const PAUSE_MS = 300
const SHOWN = 100
const MOST_BYTES = 2 * 1024 * 1024

/** A pasted or dropped list of host names: shows what matches, what does not and what is doubtful before anything is kept. */
export function HostsWindow({ heading, onFound, onClose }: Props) {
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState<Readonly<Record<number, { id: string; name: string }>>>({})
  const settled = useSettled(text, PAUSE_MS)
  const hosts = useHosts()
  const { mutate } = hosts
  const [asked, setAsked] = useState('')
  const [isLarge, setLarge] = useState(false)
  if (settled !== asked) {
    setAsked(settled)
    setChosen({})
  }
  useEffect(() => {
    if (settled.trim() !== '') {
      mutate(settled)
    }
  }, [settled, mutate])
  const found = text.trim() === '' ? undefined : hosts.data
  const all = [...(found?.matched ?? []).map(({ id, name }) => ({ id, name })), ...Object.values(chosen)]
  const devices = [...new Map(all.map(one => [one.id, one])).values()]
  return (
    <Window
      open
      onClose={onClose}
      heading={heading}
      width="680px"
      foot={
        <WindowFoot
          trouble={
            isLarge
              ? 'This file has more than 2 MiB; a list of host names is shorter. Paste a part of it.'
              : hosts.isError && text.trim() !== ''
                ? sentence(hosts.error)
                : undefined
          }
          note={found === undefined ? 'Nothing is kept before you say so.' : summary(found)}
          onCancel={onClose}
        >
          <Button
            size="lg"
            variant="chosen"
            disabled={devices.length === 0}
            loading={hosts.isPending}
            onClick={() => onFound(devices)}
          >
            Take {some(devices.length, 'device')}
          </Button>
        </WindowFoot>
      }
    >
      <Box
        onDragOver={event => event.preventDefault()}
        onDrop={event => {
          const file = event.dataTransfer.files[0]
          if (file !== undefined) {
            event.preventDefault()
            setLarge(file.size > MOST_BYTES)
            if (file.size <= MOST_BYTES) {
              void file.text().then(setText)
            }
          }
        }}
      >
        <TextField
          label="Host names"
          mono
          rows={7}
          value={text}
          onChange={setText}
          placeholder={'QB-LAB-014\nqb-lab-015.quillbrook.example\n# a comment'}
          hint="A line each, or the first column of a CSV: name, name with domain, or serial number. Paste it, or drop a file here. What stands after # is left out."
        />
      </Box>
      {found !== undefined && (
        <Box mt="3" textStyle="compact">
          {found.unknown.length > 0 && (
            <Part heading={`${count(found.unknown.length)} unknown`}>
              {found.unknown.slice(0, SHOWN).map(one => (
                <Line key={one.line} line={one.line} written={one.written}>
                  {one.nearest.length === 0 ? (
                    'no device is called that'
                  ) : (
                    <>
                      nearest:{' '}
                      {one.nearest.map(near => (
                        <Near
                          key={near.id}
                          near={near}
                          on={chosen[one.line]?.id === near.id}
                          onTake={() => setChosen({ ...chosen, [one.line]: near })}
                        />
                      ))}
                    </>
                  )}
                </Line>
              ))}
            </Part>
          )}
          {found.doubtful.length > 0 && (
            <Part heading={`${count(found.doubtful.length)} doubtful: more than one device is called that`}>
              {found.doubtful.slice(0, SHOWN).map(one => (
                <Line key={one.line} line={one.line} written={one.written}>
                  {one.candidates.map(near => (
                    <Near
                      key={near.id}
                      near={near}
                      on={chosen[one.line]?.id === near.id}
                      onTake={() => setChosen({ ...chosen, [one.line]: near })}
                    />
                  ))}
                </Line>
              ))}
            </Part>
          )}
          {found.doubles.length > 0 && (
            <Part heading={`${count(found.doubles.length)} named before, taken once`}>
              {found.doubles.slice(0, SHOWN).map(one => (
                <Line key={one.line} line={one.line} written={one.written}>
                  as line {one.first}
                </Line>
              ))}
            </Part>
          )}
          {found.matched.length > 0 && (
            <Part heading={`${count(found.matched.length)} matched`}>
              {found.matched.slice(0, SHOWN).map(one => (
                <Line key={one.line} line={one.line} written={one.written}>
                  {one.name} · {one.where}
                </Line>
              ))}
              {found.matched.length > SHOWN && <Box color="ink2">and {count(found.matched.length - SHOWN)} more</Box>}
            </Part>
          )}
        </Box>
      )}
    </Window>
  )
}

function summary(found: HostsFound): string {
  return [
    `${count(found.matched.length)} matched`,
    `${count(found.unknown.length)} unknown`,
    `${count(found.doubtful.length)} doubtful`,
    `${count(found.doubles.length)} double`,
  ].join(' · ')
}

function Part({ heading, children }: { heading: string; children: React.ReactNode }) {
  return (
    <Box as="section" mb="2.5">
      <Box as="h3" fontWeight="700" mb="0.5">
        {heading}
      </Box>
      {children}
    </Box>
  )
}

function Line({ line, written, children }: { line: number; written: string; children: React.ReactNode }) {
  return (
    <Flex gap="3" py="0.5" borderTopWidth="1px" borderColor="line">
      <Box w="36px" color="ink3" textAlign="right">
        {line}
      </Box>
      <Box w="200px" textStyle="code" truncate title={written}>
        {written}
      </Box>
      <Box flex="1" color="ink2">
        {children}
      </Box>
    </Flex>
  )
}

function Near({ near, on, onTake }: { near: { id: string; name: string }; on: boolean; onTake: () => void }) {
  return (
    <Button size="xs" variant={on ? 'chosen' : 'text'} aria-pressed={on} onClick={onTake}>
      {near.name}
    </Button>
  )
}
