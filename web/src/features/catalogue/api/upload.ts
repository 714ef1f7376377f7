import type { Api } from '../../../shared/api'
import { ask, isRefusal, send, withQuery } from '../../../shared/api'

export type Proposal = Api['Proposal']

const PART = 4 * 1024 * 1024
const TRIES = 6
const FIRST_WAIT_MS = 500

/** A file on its way in. */
export interface Progress {
  readonly sent: number
  readonly size: number
  /** Waiting for the connection to come back. */
  readonly waiting: boolean
}

/**
 * Sends a file part by part and has it read. A part that breaks off is sent again from where the server has it.
 *
 * @param title the one that it was dropped on; undefined for the catalogue
 */
export async function upload(
  file: File,
  title: string | undefined,
  tell: (progress: Progress) => void,
  signal: AbortSignal,
): Promise<Proposal> {
  const begun = await ask<Api['UploadView']>('POST', '/api/uploads', { fileName: file.name, size: file.size })
  const address = `/api/uploads/${begun.id}`
  let sent = begun.received
  let tries = 0
  while (sent < file.size) {
    if (signal.aborted) {
      await ask('DELETE', address)
      throw new Error('The file was not sent; nothing was kept of it.')
    }
    tell({ sent, size: file.size, waiting: tries > 0 })
    try {
      const part = file.slice(sent, Math.min(file.size, sent + Math.min(PART, begun.partSize)))
      sent = (await send<Api['UploadView']>('PUT', withQuery(`${address}/part`, { offset: sent }), part, signal))
        .received
      tries = 0
    } catch (error) {
      sent = await again(error, address, sent, tries, signal)
      tries += 1
    }
  }
  tell({ sent, size: file.size, waiting: false })
  return ask<Proposal>('POST', withQuery(`${address}/reading`, { title }))
}

/** After a break: waits, longer each time, and asks how much has arrived. */
async function again(error: unknown, address: string, sent: number, tries: number, signal: AbortSignal) {
  const broken = isRefusal(error) && (error.status === 0 || error.status >= 500 || error.code === 'other-offset')
  if (signal.aborted) {
    return sent
  }
  if (!broken || tries >= TRIES) {
    throw error
  }
  await new Promise(done => window.setTimeout(done, FIRST_WAIT_MS * 2 ** tries))
  return ask<Api['UploadView']>('GET', address).then(
    there => there.received,
    () => sent,
  )
}
