import { useSearchParams } from 'react-router'
import type { Program, TitlePageData } from '../api/catalogue'

/** What the address says of a title's page, with what stands where it says nothing. */
export interface TitleAddress {
  readonly version: string
  readonly variant: string
  readonly program: Program
  readonly device: string
  readonly set: (change: Partial<Record<'release' | 'variant' | 'program' | 'device', string>>) => void
}

const PROGRAMS = ['install', 'remove', 'repair'] as const

export function useTitleAddress(page: TitlePageData): TitleAddress {
  const [parameters, setParameters] = useSearchParams()
  const asked = parameters.get('release')
  const releases = page.releases
  const offered = new Set(page.record.releases.filter(r => r.offered).map(r => r.version))
  const chosen = releases.find(r => r.version === asked) ?? releases.find(r => offered.has(r.version)) ?? releases[0]
  const variants = chosen?.fits ?? []
  const variant = variants.find(v => v.variant === parameters.get('variant')) ?? variants[0]
  return {
    version: chosen?.version ?? '',
    variant: variant?.variant ?? '',
    program: PROGRAMS.find(p => p === parameters.get('program')) ?? 'install',
    device: parameters.get('device') ?? '',
    set: change => {
      const next = new URLSearchParams(window.location.search)
      for (const [name, value] of Object.entries(change)) {
        if (value === '') {
          next.delete(name)
        } else {
          next.set(name, value)
        }
      }
      setParameters(next, { replace: true })
    },
  }
}
