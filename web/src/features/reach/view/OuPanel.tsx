import { Box, Flex } from '@chakra-ui/react'
import { side } from '../../../shared/ui/Page'
import { Panel } from '../../../shared/ui/Panel'
import type { ReactNode } from 'react'
import { memo } from 'react'
import { Link } from 'react-router'
import { sentence } from '../../../shared/api'
import { Button } from '../../../shared/ui/Button'
import { failure } from '../../../shared/failure'
import { some } from '../../../shared/format'
import { useSettled } from '../../../shared/useSettled'
import { StandingPart } from '../../standing'
import type { OuTrail } from '../api/reach'
import { useOuTrail } from '../api/reach'
import { AssignPart } from './AssignPart'
import { ProportionBar } from './ProportionBar'
import { RungList } from './RungList'

interface Props {
  title: string
  titleName: string
  /** Whether the title is installed for each person, so that figures count people on devices. */
  perPerson: boolean
  /** Its id. */
  ou: string
  /** What is known of it already, so that one can act on it at once. */
  known: Pick<OuTrail, 'id' | 'name' | 'here'> | undefined
  /** Has the map show it, where it does not; told the OU that it stands in. */
  onShow?: ((parent: string) => void) | undefined
}

const PAUSE_MS = 120

/** What decides in the chosen part, and where one assigns. */
export const OuPanel = memo(function OuPanel({ title, titleName, perPerson, ou, known, onShow }: Props) {
  const query = useOuTrail(title, useSettled(ou, PAUSE_MS))
  if (failure(query) !== undefined) {
    return (
      <Frame label="The chosen part">
        <Box color="trouble" py="3" px="4">
          {sentence(query.error)}
        </Box>
      </Frame>
    )
  }
  const shown = query.data
  const isCurrent = shown?.title === title && shown.trail.id === ou
  // Never what was chosen before, which stays on the screen until what is chosen now has come.
  const chosen = isCurrent ? shown.trail : known
  return (
    <Frame label={shown?.trail.name ?? known?.name ?? 'The chosen part'}>
      <Box flex="1" minH="0" overflowY="auto" py="3" px="4">
        {shown !== undefined && (
          <Box opacity={isCurrent ? 1 : 0.5} aria-busy={!isCurrent}>
            <TrailPart title={shown.title} perPerson={perPerson} trail={shown.trail} onShow={onShow} />
          </Box>
        )}
      </Box>
      {chosen !== undefined && (
        // Below it, always in sight and at the same place, however much there is to say and whenever it comes.
        <Box borderTopWidth="1px" borderColor="line" py="3" px="4">
          <AssignPart title={title} titleName={titleName} ou={chosen} />
        </Box>
      )}
    </Frame>
  )
})

interface TrailProps extends Pick<Props, 'title' | 'perPerson' | 'onShow'> {
  trail: OuTrail
}

/** What the chosen part gets and what decides there; drawn anew only when that is another. */
const TrailPart = memo(function TrailPart({ title, perPerson, trail, onShow }: TrailProps) {
  const { name, path, devices, people, fenced, counts, after, rungs } = trail
  const parent = path.at(-2)
  return (
    <>
      <Box as="h2" textStyle="heading">
        {name}
      </Box>
      <Box color="ink2" textStyle="compact" mb="3">
        {path.length > 2 &&
          `${path
            .slice(1)
            .map(part => part.name)
            .join(' › ')} · `}
        {some(devices, 'device')}, {some(people, 'person', 'people')}
        {fenced && ' · fenced'}
        <Box as="span" css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
          {' · '}
          <Link to={`/audiences/${encodeURIComponent(`ou:${trail.id}`)}`}>
            {fenced ? 'all it receives, and its fence' : 'all it receives'}
          </Link>
        </Box>
      </Box>
      {onShow !== undefined && parent !== undefined && (
        <Button size="sm" mb="3" onClick={() => onShow(parent.id)}>
          Show it on the map
        </Button>
      )}
      {perPerson && (
        <Box color="ink2" textStyle="second" mb="1">
          Installed for each person: everybody counts on each device they use.
        </Box>
      )}
      {devices > 0 && <ProportionBar title={title} ou={trail.id} counts={counts} after={after} />}
      <Flex mt="4" mb="1" align="baseline" justify="space-between">
        <Box as="h3" fontWeight="700">
          What decides here
        </Box>
        {rungs.length > 1 && (
          <Box color="ink2" textStyle="second">
            strongest first
          </Box>
        )}
      </Flex>
      {rungs.length === 0 ? (
        <Box color="ink2" pt="0.5">
          {trail.sentence}
        </Box>
      ) : (
        <RungList title={title} rungs={rungs} perPerson={perPerson} />
      )}
      {devices > 0 && (
        <Box mt="4">
          <StandingPart title={title} ou={trail.id} />
        </Box>
      )}
    </>
  )
})

function Frame({ label, children }: { label: string; children?: ReactNode }) {
  return (
    <Panel aria-label={label} {...side('378px')} column>
      {children}
    </Panel>
  )
}
