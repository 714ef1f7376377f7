import { Box, Flex } from '@chakra-ui/react'
import { Panel, PanelHead, PanelPart } from '../../../shared/ui/Panel'
import { StackBar } from '../../../shared/ui/StackBar'
import { Check } from 'lucide-react'
import { lazy, Suspense } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { bytes, count, some } from '../../../shared/format'
import type { Look, ReleaseRecord, ReleaseStanding, TitlePageData } from '../api/catalogue'
import { RequestsPart } from '../../request'
import { Standing } from '../../standing'
import { useCopyEverywhere } from '../api/rights'
import type { Editing } from '../state/useEdit'
import type { TitleAddress } from '../state/useTitleAddress'
import { ChoicesPart } from './ChoicesPart'

const FitsWindow = lazy(() => import('./FitsWindow').then(part => ({ default: part.FitsWindow })))
const ChoicesWindow = lazy(() => import('./ChoicesWindow').then(part => ({ default: part.ChoicesWindow })))
const MisfitsWindow = lazy(() => import('./DeviceListWindow').then(part => ({ default: part.MisfitsWindow })))
const LicenceWindow = lazy(() => import('./LicenceWindow').then(part => ({ default: part.LicenceWindow })))

const UseChangedWindow = lazy(() => import('./UseChangedWindow').then(part => ({ default: part.UseChangedWindow })))

const USE_CHANGED = 'use-changed:'

interface Props {
  page: TitlePageData
  release: ReleaseRecord
  standing: ReleaseStanding
  address: TitleAddress
  editing: Editing
}

/** What is looked at before it is assigned, and where it fits. */
export function ReadyPanel({ page, release, standing, address, editing }: Props) {
  const { window: open, open: setOpen } = address
  const copies = useCopyEverywhere(page.record.id, release.version)
  const navigate = useNavigate()
  const variant = release.variants.find(v => v.id === address.variant)
  const needy = standing.looks.filter(look => !look.well)
  const remedy = (name: string) => {
    if (name === 'edit-presence') {
      setOpen('presence')
    } else if (name === 'copy-to-mirrors') {
      copies.mutate()
    } else if (name === 'accept-licence') {
      setOpen('licence')
    } else if (name === 'edit-fits') {
      setOpen('fits')
    } else if (name.startsWith('trust:')) {
      const signer = name.slice('trust:'.length)
      editing.save(
        record => ({ ...record, trustedSigners: [...record.trustedSigners, signer] }),
        () => undefined,
      )
    } else if (name === 'trusted-roots') {
      void navigate('/trusted-roots')
    } else if (name.startsWith(USE_CHANGED)) {
      setOpen(name)
    } else if (name.startsWith('show:')) {
      address.set({ release: name.slice('show:'.length), variant: '' })
    } else {
      address.set({ program: name === 'edit-remove' ? 'remove' : 'install' })
    }
  }
  return (
    <Panel aria-label="Before it is assigned" w={{ base: '100%', xl: '352px' }} flexShrink="0" padded overflowY="auto">
      <PanelHead
        heading="Before it is assigned"
        aside={
          needy.length === 0
            ? 'all is well'
            : `${needy.length} of ${standing.looks.length} ${needy.length === 1 ? 'needs' : 'need'} attention`
        }
      />
      <Box as="ul" listStyleType="none">
        {[...needy, ...standing.looks.filter(look => look.well)].map(look => (
          <LookLine key={`${look.code} ${look.sentence}`} look={look} onRemedy={remedy} />
        ))}
      </Box>
      <PanelPart
        heading="Fits"
        aside={`${count(page.devices - standing.without)} of ${some(page.devices, 'device')}`}
        onEdit={() => setOpen('fits')}
      >
        <FitBar devices={page.devices} standing={standing} />
        {standing.fits.map(fit => (
          <Box key={fit.variant} textStyle="compact" mt="1">
            <b>{count(fit.devices)}</b> {fit.variant}{' '}
            {fit.rule === undefined ? (
              <Box as="span" color="ink2">
                · every device
              </Box>
            ) : (
              <Box as="code" textStyle="code" color="ink2" overflowWrap="anywhere">
                {fit.rule}
              </Box>
            )}
          </Box>
        ))}
        {standing.without > 0 && (
          <Box textStyle="compact" mt="1">
            <Button variant="text" size="xs" px="0" textStyle="compact" onClick={() => setOpen('misfits')}>
              {count(standing.without)}
            </Button>{' '}
            no variant fits
            {standing.unreported > 0 && (
              <Box as="span" color="ink2">
                {standing.unreported === standing.without
                  ? ': they have not reported yet'
                  : `: ${count(standing.unreported)} have not reported yet, ${count(standing.without - standing.unreported)} by the rule`}
              </Box>
            )}
          </Box>
        )}
      </PanelPart>
      <PanelPart heading="Choices" onEdit={() => setOpen('choices')}>
        <ChoicesPart page={page} release={release} />
      </PanelPart>
      <PanelPart heading="How it stands">
        <Standing title={page.record.id} />
      </PanelPart>
      <RequestsPart which={{ title: page.record.id }} without="title" />
      {release.variants.some(v => v.contents.length > 0) && (
        <PanelPart heading="Content">
          {release.variants
            .flatMap(v => v.contents)
            .map(content => (
              <Box key={content.sha256} textStyle="second" color="ink2" overflowWrap="anywhere" mb="1">
                {content.fileName} · {bytes(content.size)}
                {content.signer === undefined ? '' : `, signed by ${content.signer}`}
              </Box>
            ))}
        </PanelPart>
      )}
      {open === 'choices' && (
        <Suspense fallback={null}>
          <ChoicesWindow release={release} editing={editing} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {open === 'licence' && (
        <Suspense fallback={null}>
          <LicenceWindow record={page.record} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {open?.startsWith(USE_CHANGED) === true && (
        <Suspense fallback={null}>
          <UseChangedWindow
            title={page.record.id}
            sha256={open.slice(USE_CHANGED.length)}
            onClose={() => setOpen(undefined)}
          />
        </Suspense>
      )}
      {open === 'misfits' && (
        <Suspense fallback={null}>
          <MisfitsWindow title={page.record.id} version={release.version} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
      {open === 'fits' && variant !== undefined && (
        <Suspense fallback={null}>
          <FitsWindow
            address={address}
            rule={variant.fits ?? ''}
            editing={editing}
            onClose={() => setOpen(undefined)}
          />
        </Suspense>
      )}
    </Panel>
  )
}

function LookLine({ look, onRemedy }: { look: Look; onRemedy: (name: string) => void }) {
  const { remedy } = look
  return (
    <Flex as="li" gap="2.5" py="1.5">
      <Box w="12px" pt="0.5" color={look.well ? 'lagoon' : 'ochre'} fontWeight="700" flexShrink="0">
        {look.well ? <Check size={13} aria-label="well" /> : <span aria-label="needs attention">!</span>}
      </Box>
      <Box flex="1" minW="0">
        <Box textStyle="compact">{look.sentence}</Box>
        {look.detail !== '' && (
          <Box color="ink2" textStyle="second" overflowWrap="anywhere">
            {look.detail}
          </Box>
        )}
        {remedy !== undefined && (
          <Button variant="text" size="xs" px="0" textStyle="second" onClick={() => onRemedy(remedy)}>
            {remedyWords(remedy)}
          </Button>
        )}
      </Box>
    </Flex>
  )
}

function remedyWords(remedy: string): string {
  if (remedy.startsWith('trust:')) {
    return `Let ${remedy.slice('trust:'.length)} sign for this maker`
  }
  if (remedy.startsWith(USE_CHANGED)) {
    return 'Use it all the same, and say why'
  }
  if (remedy.startsWith('show:')) {
    return `Show ${remedy.slice('show:'.length)}`
  }
  switch (remedy) {
    case 'trusted-roots':
      return 'Show the trusted roots'
    case 'edit-presence':
      return 'Add a presence check'
    case 'copy-to-mirrors':
      return 'Copy it to them'
    case 'accept-licence':
      return 'Read it, and accept'
    case 'edit-fits':
      return 'Change the rule'
    case 'edit-remove':
      return 'Show the removal, and add a step'
    default:
      return 'Show the steps'
  }
}

const SHADES = ['bandRequired', 'lagoonLine', 'hatchRequired'] as const

function FitBar({ devices, standing }: { devices: number; standing: ReleaseStanding }) {
  return (
    <StackBar
      whole={devices}
      words={standing.fits.map(fit => `${count(fit.devices)} ${fit.variant}`).join(', ')}
      parts={standing.fits.map((fit, i) => ({
        id: fit.variant,
        n: fit.devices,
        colour: SHADES[i % SHADES.length] ?? 'bandRequired',
      }))}
    />
  )
}
