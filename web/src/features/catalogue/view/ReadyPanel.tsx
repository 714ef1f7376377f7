import { Box, Flex } from '@chakra-ui/react'
import { Check } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../../../shared/Button'
import { bytes, count, some } from '../../../shared/format'
import type { Look, ReleaseRecord, ReleaseStanding, TitlePageData } from '../api/catalogue'
import { useCopyEverywhere } from '../api/rights'
import { withFits, withVariant } from '../model/record'
import type { Editing } from '../model/useEdit'
import type { TitleAddress } from '../model/useTitleAddress'
import { ChoicesPart } from './ChoicesPart'
import { ChoicesWindow } from './ChoicesWindow'
import { MisfitsWindow } from './DeviceListWindow'
import { EditWindow } from './EditWindow'
import { LicenceWindow } from './LicenceWindow'
import { PresenceWindow } from './PresenceWindow'
import { TextField } from '../../../shared/TextField'

interface Props {
  page: TitlePageData
  release: ReleaseRecord
  standing: ReleaseStanding
  address: TitleAddress
  editing: Editing
}

/** What is looked at before it is assigned, and where it fits. */
export function ReadyPanel({ page, release, standing, address, editing }: Props) {
  const [open, setOpen] = useState<'presence' | 'fits' | 'choices' | 'licence' | 'misfits' | undefined>(undefined)
  const copies = useCopyEverywhere(page.record.id, release.version)
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
    } else if (name.startsWith('show:')) {
      address.set({ release: name.slice('show:'.length), variant: '' })
    } else {
      address.set({ program: name === 'edit-remove' ? 'remove' : 'install' })
    }
  }
  return (
    <Box
      as="section"
      aria-label="Before it is assigned"
      w="352px"
      flexShrink="0"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      p="12px 16px"
      overflowY="auto"
    >
      <Flex align="baseline" justify="space-between" mb="6px">
        <Box as="h2" fontWeight="700">
          Before it is assigned
        </Box>
        <Box color="ink2" fontSize="12.3px">
          {needy.length === 0
            ? 'all is well'
            : `${needy.length} of ${standing.looks.length} ${needy.length === 1 ? 'needs' : 'need'} attention`}
        </Box>
      </Flex>
      <Box as="ul" listStyleType="none">
        {[...needy, ...standing.looks.filter(look => look.well)].map(look => (
          <LookLine key={look.code} look={look} onRemedy={remedy} />
        ))}
      </Box>
      <Part
        heading="Fits"
        aside={`${count(page.devices - standing.without)} of ${some(page.devices, 'device')}`}
        onEdit={() => setOpen('fits')}
      >
        <FitBar devices={page.devices} standing={standing} />
        {standing.fits.map(fit => (
          <Box key={fit.variant} fontSize="13px" mt="4px">
            <b>{count(fit.devices)}</b> {fit.variant}{' '}
            {fit.rule === undefined ? (
              <Box as="span" color="ink2">
                · every device
              </Box>
            ) : (
              <Box as="code" fontFamily="mono" fontSize="12px" color="ink2" overflowWrap="anywhere">
                {fit.rule}
              </Box>
            )}
          </Box>
        ))}
        {standing.without > 0 && (
          <Box fontSize="13px" mt="4px">
            <Button variant="text" h="20px" px="0" fontSize="13px" onClick={() => setOpen('misfits')}>
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
      </Part>
      <Part heading="Choices" onEdit={() => setOpen('choices')}>
        <ChoicesPart page={page} release={release} />
      </Part>
      {release.variants.some(v => v.contents.length > 0) && (
        <Part heading="Content">
          {release.variants
            .flatMap(v => v.contents)
            .map(content => (
              <Box key={content.sha256} fontSize="12.3px" color="ink2" overflowWrap="anywhere" mb="3px">
                {content.fileName} · {bytes(content.size)}
                {content.signer === undefined ? '' : `, signed by ${content.signer}`}
              </Box>
            ))}
        </Part>
      )}
      {open === 'choices' && <ChoicesWindow release={release} editing={editing} onClose={() => setOpen(undefined)} />}
      {open === 'licence' && <LicenceWindow record={page.record} onClose={() => setOpen(undefined)} />}
      {open === 'misfits' && (
        <MisfitsWindow title={page.record.id} version={release.version} onClose={() => setOpen(undefined)} />
      )}
      {open === 'presence' && variant !== undefined && (
        <PresenceWindow
          spot={address}
          presence={variant.presence}
          editing={editing}
          onClose={() => setOpen(undefined)}
        />
      )}
      {open === 'fits' && variant !== undefined && (
        <FitsWindow address={address} rule={variant.fits ?? ''} editing={editing} onClose={() => setOpen(undefined)} />
      )}
    </Box>
  )
}

function LookLine({ look, onRemedy }: { look: Look; onRemedy: (name: string) => void }) {
  const { remedy } = look
  return (
    <Flex as="li" gap="10px" py="5px">
      <Box w="12px" pt="2px" color={look.well ? 'lagoon' : 'ochre'} fontWeight="700" flexShrink="0">
        {look.well ? <Check size={13} aria-label="well" /> : <span aria-label="needs attention">!</span>}
      </Box>
      <Box flex="1" minW="0">
        <Box fontSize="13.5px">{look.sentence}</Box>
        {look.detail !== '' && (
          <Box color="ink2" fontSize="12.3px" overflowWrap="anywhere">
            {look.detail}
          </Box>
        )}
        {remedy !== undefined && (
          <Button variant="text" h="22px" px="0" fontSize="12.3px" onClick={() => onRemedy(remedy)}>
            {remedyWords(remedy)}
          </Button>
        )}
      </Box>
    </Flex>
  )
}

function remedyWords(remedy: string): string {
  if (remedy.startsWith('trust:')) {
    return `Trust ${remedy.slice('trust:'.length)} for this title`
  }
  if (remedy.startsWith('show:')) {
    return `Show ${remedy.slice('show:'.length)}`
  }
  switch (remedy) {
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

function Part({
  heading,
  aside,
  onEdit,
  children,
}: {
  heading: string
  aside?: string
  onEdit?: () => void
  children: React.ReactNode
}) {
  return (
    <Box borderTopWidth="1px" borderColor="line" mt="8px" pt="9px">
      <Flex align="baseline" gap="8px" mb="5px">
        <Box as="h3" fontWeight="700">
          {heading}
        </Box>
        {onEdit !== undefined && (
          <Button variant="text" h="20px" fontSize="12.3px" onClick={onEdit}>
            edit
          </Button>
        )}
        <Box flex="1" />
        <Box color="ink2" fontSize="12.3px">
          {aside}
        </Box>
      </Flex>
      {children}
    </Box>
  )
}

const SHADES = ['bandRequired', 'lagoonLine', 'hatchRequired'] as const

function FitBar({ devices, standing }: { devices: number; standing: ReleaseStanding }) {
  return (
    <Flex h="10px" borderRadius="5px" overflow="hidden" bg="bandNone" aria-hidden="true">
      {standing.fits.map((fit, i) => (
        <Box
          key={fit.variant}
          bg={SHADES[i % SHADES.length] ?? 'bandRequired'}
          style={{ width: `${devices === 0 ? 0 : (100 * fit.devices) / devices}%` }}
        />
      ))}
    </Flex>
  )
}

function FitsWindow({
  address,
  rule,
  editing,
  onClose,
}: {
  address: TitleAddress
  rule: string
  editing: Editing
  onClose: () => void
}) {
  const [text, setText] = useState(rule)
  return (
    <EditWindow
      heading={`Where variant ${address.variant} fits`}
      editing={editing}
      onClose={onClose}
      edit={record => withVariant(record, address, variant => withFits(variant, text))}
    >
      <TextField label="Rule" mono rows={4} value={text} hint="Empty: every device" onChange={setText} />
    </EditWindow>
  )
}
