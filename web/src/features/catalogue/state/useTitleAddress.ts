import { name, oneOf, text } from '../../../shared/address'
import { useAddressState } from '../../../shared/useAddressState'
import type { Program, TitlePageData } from '../api/catalogue'

/** What the address says of a title's page, with what stands where it says nothing. */
export interface TitleAddress {
  readonly version: string
  readonly variant: string
  readonly program: Program
  readonly device: string
  /** The window that is open over the page. */
  readonly window: string | undefined
  /** Opens a window, and says in the address what it is about: what is newest may become another while it is open. */
  readonly open: (window: string | undefined) => void
  readonly set: (change: Partial<{ release: string; variant: string; program: Program; device: string }>) => void
}

const TITLE_ADDRESS = {
  release: text,
  variant: text,
  program: oneOf<Program>('install', 'remove', 'repair'),
  device: text,
  open: name,
}

export function useTitleAddress(page: TitlePageData): TitleAddress {
  const [address, set] = useAddressState(TITLE_ADDRESS)
  const releases = page.releases
  const offered = new Set(page.record.releases.filter(r => r.offered).map(r => r.version))
  const chosen =
    releases.find(r => r.version === address.release) ?? releases.find(r => offered.has(r.version)) ?? releases[0]
  const variants = chosen?.fits ?? []
  const variant = variants.find(v => v.variant === address.variant) ?? variants[0]
  const about = { version: chosen?.version ?? '', variant: variant?.variant ?? '' }
  return {
    ...about,
    window: address.open,
    open: window =>
      window === undefined
        ? set({ open: undefined }, { replace: true })
        : set({ open: window, release: about.version, variant: about.variant }),
    program: address.program,
    device: address.device,
    set: change => set(change),
  }
}
