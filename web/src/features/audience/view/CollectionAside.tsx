import { Box, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { count, some } from '../../../shared/format'
import { intentVerb } from '../../../shared/outcomes'
import { Diamond } from '../../../shared/ui/Diamond'
import { side } from '../../../shared/ui/Page'
import { Panel, PanelPart } from '../../../shared/ui/Panel'
import { StackBar } from '../../../shared/ui/StackBar'
import type { TriedRule } from '../../rule'
import type { AudienceData } from '../api/audiences'
import { CameAndWent } from './CameAndWent'
import { MembershipQuestion } from './MembershipQuestion'

interface Props {
  /** Nothing for a new collection. */
  view: AudienceData | undefined
  tried: TriedRule | undefined
}

/** Who would be in a collection as it is written, who would come in and go out, and what hangs on it. */
export function CollectionAside({ view, tried }: Props) {
  return (
    <Panel aria-label="Who is in it" {...side('296px')} overflowY="auto" padded>
      {tried?.devices !== undefined && (
        <>
          <Flex align="baseline" gap="2">
            <Box textStyle="heading" flex="1">
              {some(tried.devices, 'device')}
            </Box>
            <Box color="ink2" textStyle="second">
              {view?.collection !== undefined && `published: ${count(tried.saved ?? 0)}`}
              {tried.comingIn > 0 && (
                <>
                  {' · '}
                  <b>+{count(tried.comingIn)}</b>
                </>
              )}
              {tried.goingOut > 0 && (
                <>
                  {' · '}
                  <b>−{count(tried.goingOut)}</b>
                </>
              )}
            </Box>
          </Flex>
          <Box my="1.5">
            <StackBar
              whole={tried.fleet}
              words={`${count(tried.devices)} of ${count(tried.fleet)}`}
              parts={[{ id: 'n', n: tried.devices, colour: 'bandRequired' }]}
            />
          </Box>
          <Box color="ink2" textStyle="second">
            {tried.spread.map(part => `${part.name} ${count(part.devices)}`).join(' · ')}
          </Box>
        </>
      )}
      {tried?.problem !== undefined && (
        <Box color="ink2">As soon as the rule can be read, its devices are shown here.</Box>
      )}
      {view !== undefined && <MembershipQuestion view={view} />}
      {tried !== undefined && tried.comingIn + tried.goingOut > 0 && view?.collection !== undefined && (
        <PanelPart heading={`Would come in ${count(tried.comingIn)} and go out ${count(tried.goingOut)}`}>
          {tried.comesIn.slice(0, 10).map(one => (
            <DeviceLine key={one.id} sign="+" one={one} />
          ))}
          {tried.goesOut.slice(0, 10).map(one => (
            <DeviceLine key={one.id} sign="−" one={one} />
          ))}
          {tried.comingIn + tried.goingOut > 20 && (
            <Box color="ink2" textStyle="second">
              and more; keep it in the draft to see all of them
            </Box>
          )}
        </PanelPart>
      )}
      {view?.collection !== undefined && <CameAndWent target={view.target} kind={view.kind} />}
      {view !== undefined && <NamedBy view={view} />}
    </Panel>
  )
}

function DeviceLine({ sign, one }: { sign: string; one: { id: string; name: string; where: string } }) {
  return (
    <Flex gap="2" py="0.5">
      <Box fontWeight="700" color={sign === '+' ? 'lagoon' : 'trouble'}>
        {sign}
      </Box>
      <Box flex="1" css={{ '& a:hover': { textDecoration: 'underline' } }}>
        <Link to={`/fleet/${encodeURIComponent(one.id)}`}>{one.name}</Link>
      </Box>
      <Box color="ink2" textStyle="second">
        {one.where}
      </Box>
    </Flex>
  )
}

/** All that hangs on it: what is assigned to it, what it is excluded from, what it is a wave of, which collections name it. */
function NamedBy({ view }: { view: AudienceData }) {
  const used = view.assigned.length + view.excluded.length + view.waves.length + view.namedBy.length
  return (
    <PanelPart heading="What hangs on it">
      {used === 0 && <Box color="ink2">Nothing. It can be deleted.</Box>}
      {view.assigned.map(one => (
        <Flex key={one.assignment} gap="2" align="center" py="0.5">
          <Diamond kind={one.intent} size={12} /> {intentVerb(one.intent)} {one.name}
          {one.draft && <Box color="ink2">draft</Box>}
        </Flex>
      ))}
      {view.excluded.map(one => (
        <Box key={one.assignment} py="0.5">
          left out of {intentVerb(one.intent)} {one.name}
        </Box>
      ))}
      {view.waves.map(one => (
        <Box key={one.assignment} py="0.5">
          a wave of {intentVerb(one.intent)} {one.name}
        </Box>
      ))}
      {view.namedBy.map(one => (
        <Box key={one.target} py="0.5" css={{ '& a': { textDecoration: 'underline' } }}>
          named by <Link to={`/audiences/${encodeURIComponent(one.target)}`}>{one.name}</Link>
        </Box>
      ))}
    </PanelPart>
  )
}
