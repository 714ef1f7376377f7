import { Box } from '@chakra-ui/react'
import type { DragEvent } from 'react'
import { useEffect, useRef, useState } from 'react'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { bytes } from '../../../shared/format'
import type { Progress, Proposal } from '../api/upload'
import { upload } from '../api/upload'
import { ProposalWindow } from './ProposalWindow'

type State =
  | { readonly kind: 'idle' }
  | { readonly kind: 'sending'; readonly name: string; readonly progress: Progress; readonly stop: () => void }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'read'; readonly proposal: Proposal }

/** Takes an installer: dropped, or chosen by hand. It is sent, read, and what it would become is shown. */
export function DropZone({ title, words }: { title?: string; words: string }) {
  const [state, setState] = useState<State>({ kind: 'idle' })
  const [over, setOver] = useState(false)
  const input = useRef<HTMLInputElement>(null)
  useWarning(state.kind === 'sending')
  const take = (file: File | undefined) => {
    if (file === undefined) {
      return
    }
    const stopping = new AbortController()
    const tell = (progress: Progress) =>
      setState({ kind: 'sending', name: file.name, progress, stop: () => stopping.abort() })
    tell({ sent: 0, size: file.size, waiting: false })
    upload(file, title, tell, stopping.signal).then(
      proposal => setState({ kind: 'read', proposal }),
      (error: unknown) => setState({ kind: 'refused', why: sentence(error) }),
    )
  }
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    take(event.dataTransfer.files[0])
  }
  return (
    <Box
      onDragOver={event => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      borderWidth="1px"
      borderStyle="dashed"
      borderColor={over ? 'lagoon' : 'line'}
      bg={over ? 'lagoonSoft' : 'transparent'}
      borderRadius="8px"
      p="10px 12px"
      textAlign="center"
      color="ink2"
      fontSize="13px"
    >
      <input
        ref={input}
        type="file"
        hidden
        aria-label="An installer"
        onChange={event => {
          take(event.target.files?.[0])
          event.target.value = ''
        }}
      />
      {state.kind === 'sending' ? (
        <Sending state={state} />
      ) : (
        <>
          {state.kind === 'refused' && (
            <Box role="alert" color="trouble" mb="6px">
              {state.why}
            </Box>
          )}
          <Box>{words}</Box>
          <Button variant="text" h="24px" onClick={() => input.current?.click()}>
            or choose a file
          </Button>
        </>
      )}
      {state.kind === 'read' && <ProposalWindow proposal={state.proposal} onClose={() => setState({ kind: 'idle' })} />}
    </Box>
  )
}

function Sending({ state }: { state: Extract<State, { kind: 'sending' }> }) {
  const { sent, size, waiting } = state.progress
  const share = size === 0 ? 0 : sent / size
  return (
    <Box aria-live="polite">
      <Box color="ink" fontWeight="600" truncate>
        {state.name}
      </Box>
      <Box h="6px" my="6px" borderRadius="3px" bg="bandNone" overflow="hidden">
        <Box h="100%" bg="lagoon" style={{ width: `${share * 100}%` }} />
      </Box>
      {waiting
        ? 'Connection lost; the upload resumes by itself.'
        : sent === size
          ? 'Reading it…'
          : `${bytes(sent)} of ${bytes(size)}`}
      {sent < size && (
        <Button variant="text" h="24px" onClick={state.stop}>
          Cancel
        </Button>
      )}
    </Box>
  )
}

/** The browser asks before the page is left while a file is on its way. */
function useWarning(on: boolean) {
  useEffect(() => {
    if (!on) {
      return undefined
    }
    const warn = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [on])
}
