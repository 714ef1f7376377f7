import { Box, Flex, Grid } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { bytes } from '../../../shared/format'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
import type { TitleRecord } from '../api/catalogue'
import { address, useEffects, useSaveTitle } from '../api/catalogue'
import type { Proposal } from '../api/upload'
import { withFits, withRelease, withVariant } from '../model/record'
import { seenBy } from '../model/presence'
import { EffectList } from './EffectList'
import { InstalledForField } from './InstalledForField'
import { RuleField } from '../../../shared/ui/RuleField'
import { TextField } from '../../../shared/ui/TextField'

/** What was read of an installer, to check rather than to type. */
export function ProposalWindow({ proposal, onClose }: { proposal: Proposal; onClose: () => void }) {
  const navigate = useNavigate()
  const [record, setRecord] = useState<TitleRecord>(proposal.title)
  const [version, setVersion] = useState(proposal.version)
  const save = useSaveTitle(id => {
    onClose()
    void navigate(`/catalogue/${encodeURIComponent(id)}?release=${encodeURIComponent(version)}`)
  })
  const isNew = proposal.revision === 0
  const spot = { version: proposal.version, variant: proposal.variant }
  const release = record.releases.find(one => one.version === proposal.version)
  const variant = release?.variants.find(one => one.id === proposal.variant)
  const change = useMemo(
    () => ({
      record: withRelease(record, proposal.version, release => ({ ...release, version })),
      revision: proposal.revision,
    }),
    [record, version, proposal],
  )
  // A variant of a release that is offered takes effect at once, so it is rehearsed.
  const offered = release?.offered === true
  const effects = useEffects(address(change.record.id), offered ? JSON.stringify(change) : undefined)
  return (
    <Window
      open
      onClose={onClose}
      heading={`${record.name} ${version}`.trim() + (isNew ? ': a new title' : '')}
      width="760px"
      foot={
        <WindowFoot
          trouble={save.isError ? sentence(save.error) : undefined}
          note={
            offered ? `${version} is offered: this takes effect at once.` : 'No device gets it until it is offered.'
          }
          onCancel={onClose}
        >
          <Button
            size="lg"
            variant="chosen"
            onClick={() => save.mutate(change)}
            disabled={version.trim() === '' || (offered && effects.data === undefined)}
            loading={save.isPending}
          >
            Add to the catalogue
          </Button>
        </WindowFoot>
      }
    >
      <Box color="ink2" textStyle="compact" mb="2.5" textAlign="left">
        <b>{proposal.content.fileName}</b> is {proposal.format}, {bytes(proposal.content.size)}
        {proposal.content.sha256 !== '' && (
          <>
            , SHA-256{' '}
            <Box as="code" textStyle="code" title={proposal.content.sha256}>
              {proposal.content.sha256.slice(0, 8)}…
            </Box>
          </>
        )}
        . What it tells is filled in, to be checked; what it does not tell is left open.
      </Box>
      {proposal.signature !== undefined && <SignatureLine signature={proposal.signature} />}
      {proposal.facts.map(fact => (
        <Flex key={fact.what} gap="2.5" py="0.5" textStyle="compact">
          <Box w="124px" flexShrink="0" color="ink2">
            {fact.what}
          </Box>
          <Box flex="1" minW="0" overflowWrap="anywhere">
            {fact.value}
          </Box>
        </Flex>
      ))}
      {proposal.findings.map(finding => (
        <Flex key={`${finding.code} ${finding.sentence}`} gap="2" mb="1.5" textStyle="compact" textAlign="left">
          <Box color="ochre" fontWeight="700" w="10px" aria-hidden="true">
            !
          </Box>
          <Box>{finding.sentence}</Box>
        </Flex>
      ))}
      {effects.data !== undefined && (
        <Box bg="paper" borderRadius="md" py="2" px="3" textAlign="left">
          <EffectList effects={effects.data} />
        </Box>
      )}
      <Grid templateColumns="1fr 1fr" rowGap="2.5" columnGap="4" mt="2.5">
        <TextField label="Name" value={record.name} required onChange={name => setRecord({ ...record, name })} />
        <TextField label="Maker" value={record.maker} onChange={maker => setRecord({ ...record, maker })} />
        {proposal.releaseIsThere ? (
          <Box textAlign="left">
            <Box fontWeight="600" textStyle="compact">
              Version
            </Box>
            <Box py="1.5">
              {version}, which is there already: the file becomes its variant {proposal.variant}
            </Box>
          </Box>
        ) : (
          <TextField label="Version" value={version} required onChange={setVersion} />
        )}
        <TextField
          label="Category"
          value={record.about.category}
          onChange={category => setRecord({ ...record, about: { ...record.about, category } })}
        />
      </Grid>
      {isNew && (
        <Box mt="2.5">
          <InstalledForField scope={record.scope} onChange={scope => setRecord({ ...record, scope })} />
        </Box>
      )}
      {variant !== undefined && (
        <Grid templateColumns="1fr" gap="2.5" mt="2.5">
          <RuleField
            rows={1}
            value={variant.fits ?? ''}
            onChange={fits => setRecord(withVariant(record, spot, one => withFits(one, fits)))}
          />
          <Box textAlign="left">
            <Line
              label="Install command"
              steps={variant.install.map(step => step.command)}
              none="none yet: add an install command"
            />
            <Line
              label="Removal command"
              steps={variant.remove.map(step => step.command)}
              none="none yet: add a removal command"
            />
            <Line
              label="Presence check"
              steps={variant.presence.checks.map(seenBy)}
              none="none: its status would be unverified"
            />
            {release !== undefined && release.choices.length > 0 && (
              <Line
                label="Choices"
                steps={release.choices.map(choice => `${choice.text || choice.id}, usually ${choice.usual}`)}
                none=""
              />
            )}
            {release !== undefined && release.needs.length > 0 && (
              <Line label="Needs first" steps={release.needs.map(need => `${need.title} ${need.min ?? ''}`)} none="" />
            )}
            {release !== undefined && release.replaces.length > 0 && (
              <Line label="Replaces" steps={release.replaces.map(one => one.title)} none="" />
            )}
          </Box>
        </Grid>
      )}
    </Window>
  )
}

/** How it is signed, in one line. */
function SignatureLine({ signature }: { signature: NonNullable<Proposal['signature']> }) {
  return (
    <Flex gap="2.5" py="0.5" textStyle="compact">
      <Box w="124px" flexShrink="0" color="ink2">
        Signature
      </Box>
      <Box flex="1" minW="0" overflowWrap="anywhere" color={signature.well ? 'ink' : 'ochre'}>
        {signature.sentence}
        {signature.detail !== '' && (
          <Box as="span" color="ink2">
            {' '}
            · {signature.detail}
          </Box>
        )}
      </Box>
    </Flex>
  )
}

function Line({ label, steps, none }: { label: string; steps: readonly string[]; none: string }) {
  return (
    <Flex gap="2.5" py="1" textStyle="compact" borderTopWidth="1px" borderColor="line">
      <Box w="124px" flexShrink="0" color="ink2">
        {label}
      </Box>
      <Box flex="1" minW="0">
        {steps.length === 0 ? (
          <Box color="ochre">{none}</Box>
        ) : (
          steps.map(step => (
            <Box key={step} as="code" display="block" textStyle="code" overflowWrap="anywhere">
              {step}
            </Box>
          ))
        )}
      </Box>
    </Flex>
  )
}
