import { Box, FileUpload } from '@chakra-ui/react'
import { lazy, Suspense, useEffect, useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { bytes } from '../../../shared/format'
import { Progress } from '../../../shared/ui/Progress'
import type { Progress as UploadProgress, Proposal } from '../api/upload'
import { upload } from '../api/upload'
import { DROP_LOOK } from './dropLook'

const ProposalWindow = lazy(() => import('./ProposalWindow').then(part => ({ default: part.ProposalWindow })))

type State =
  | { readonly kind: 'idle' }
  | { readonly kind: 'sending'; readonly name: string; readonly progress: UploadProgress; readonly stop: () => void }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'read'; readonly proposal: Proposal }

/** Takes an installer: dropped, or chosen by hand. It is sent, read, and what it would become is shown. */
export function DropZone({ title, words }: { title?: string; words: string }) {
  const [state, setState] = useState<State>({ kind: 'idle' })
  useWarning(state.kind === 'sending')
  const take = (file: File | undefined) => {
    if (file === undefined) {
      return
    }
    const stopping = new AbortController()
    const tell = (progress: UploadProgress) =>
      setState({ kind: 'sending', name: file.name, progress, stop: () => stopping.abort() })
    tell({ sent: 0, size: file.size, waiting: false })
    upload(file, title, tell, stopping.signal).then(
      proposal => setState({ kind: 'read', proposal }),
      (error: unknown) => setState({ kind: 'refused', why: sentence(error) }),
    )
  }
  return (
    <FileUpload.Root maxFiles={1} acceptedFiles={[]} onFileAccept={({ files }) => take(files[0])}>
      <FileUpload.HiddenInput aria-label="An installer" />
      <FileUpload.Dropzone disableClick {...DROP_LOOK} minH="0" _dragging={{ borderColor: 'lagoon', bg: 'lagoonSoft' }}>
        {state.kind === 'sending' ? (
          <Sending state={state} />
        ) : (
          <Box>
            {state.kind === 'refused' && (
              <Box role="alert" color="trouble" mb="1.5">
                {state.why}
              </Box>
            )}
            <Box>{words}</Box>
            <FileUpload.Trigger asChild>
              <Button variant="text" size="xs">
                or choose a file
              </Button>
            </FileUpload.Trigger>
          </Box>
        )}
      </FileUpload.Dropzone>
      {state.kind === 'read' && (
        <Suspense fallback={null}>
          <ProposalWindow proposal={state.proposal} onClose={() => setState({ kind: 'idle' })} />
        </Suspense>
      )}
    </FileUpload.Root>
  )
}

function Sending({ state }: { state: Extract<State, { kind: 'sending' }> }) {
  const { sent, size, waiting } = state.progress
  return (
    <Box w="100%">
      <Box color="ink" fontWeight="600" truncate>
        {state.name}
      </Box>
      <Box my="1.5">
        <Progress percent={size === 0 ? 0 : (100 * sent) / size} label={`Sending ${state.name}`} />
      </Box>
      <Box role="status">
        {waiting
          ? 'Connection lost; the upload resumes by itself.'
          : sent === size
            ? 'Reading it…'
            : `${bytes(sent)} of ${bytes(size)}`}
      </Box>
      {sent < size && (
        <Button variant="text" size="xs" onClick={state.stop}>
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
