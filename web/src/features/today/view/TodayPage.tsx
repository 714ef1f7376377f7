import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { withQuery } from '../../../shared/api'
import { count, some } from '../../../shared/format'
import type { Shown } from '../../../shared/outcomes'
import { Diamond } from '../../../shared/ui/Diamond'
import { Notice } from '../../../shared/ui/Notice'
import { Page } from '../../../shared/ui/Page'
import { PageHead } from '../../../shared/ui/PageHead'
import { Panel } from '../../../shared/ui/Panel'
import { QueryState } from '../../../shared/ui/QueryState'
import { useFleetCounts } from '../../fleet'
import { RequestList, useRequests } from '../../request'
import type { TitleCount } from '../api/today'
import { useToday } from '../api/today'

const MOST_REQUESTS = 100

/** What needs attention? */
export function TodayPage() {
  const today = useToday()
  const fleet = useFleetCounts()
  const requests = useRequests({ state: 'asked', limit: MOST_REQUESTS })
  const failed = fleet.data?.failed ?? 0
  return (
    <Page>
      <PageHead heading="Today">
        <Box flex="1" color="ink2" textStyle="compact">
          What needs attention. Trouble with the directory is said at the top of every page.
        </Box>
      </PageHead>
      <Panel flex="1" minH="0" overflowY="auto" padded>
        <QueryState query={today} failed="What needs attention cannot be shown">
          {({ contested, blocked, seats, requests: asked }) =>
            asked + contested.length + blocked.length + seats.length + failed === 0 ? (
              <Notice heading="Nothing needs attention">
                No request waits, nothing is contested or blocked, no licence is used up, and no device reports a
                failure.
              </Notice>
            ) : (
              <Flex direction="column" gap="6">
                {asked > 0 && (
                  <Part heading="Requests" n={asked} says="People ask for these from their shelf.">
                    <RequestList rows={requests.data?.rows ?? []} />
                    {asked > MOST_REQUESTS && (
                      <Box color="ink2" textStyle="second" mt="2">
                        The newest {count(MOST_REQUESTS)}; the others follow as these are answered.
                      </Box>
                    )}
                  </Part>
                )}
                {failed > 0 && (
                  <Part
                    heading="Failed"
                    n={failed}
                    says="The last try of a job failed; devices try again by themselves."
                  >
                    <Box py="1.5" css={{ '& a': { textDecoration: 'underline' } }}>
                      <Link to="/fleet?state=failed">{some(failed, 'device')}</Link>
                    </Box>
                  </Part>
                )}
                <Titles
                  heading="Contested"
                  says="Assignments of equal weight disagree; nothing is done until somebody settles it."
                  outcome="contested"
                  titles={contested}
                />
                <Titles
                  heading="Blocked"
                  says="Something that they need is missing or forbidden."
                  outcome="blocked"
                  titles={blocked}
                />
                <Titles
                  heading="Licences used up"
                  says="All seats are taken; these wait for one."
                  outcome="waiting"
                  titles={seats}
                />
              </Flex>
            )
          }
        </QueryState>
      </Panel>
    </Page>
  )
}

function Part({ heading, n, says, children }: { heading: string; n: number; says: string; children: ReactNode }) {
  return (
    <Box as="section" aria-label={heading}>
      <Flex align="baseline" gap="2">
        <Box as="h2" textStyle="heading">
          {heading}
        </Box>
        <Box color="ink2">{count(n)}</Box>
      </Flex>
      <Box color="ink2" textStyle="second" mb="1">
        {says}
      </Box>
      {children}
    </Box>
  )
}

interface TitlesProps {
  heading: string
  says: string
  outcome: Shown
  titles: readonly TitleCount[]
}

function Titles({ heading, says, outcome, titles }: TitlesProps) {
  if (titles.length === 0) {
    return null
  }
  return (
    <Part heading={heading} n={titles.length} says={says}>
      <Box as="ul" listStyleType="none">
        {titles.map(one => (
          <Flex
            as="li"
            key={one.title}
            align="center"
            gap="2.5"
            py="1.5"
            borderBottomWidth="1px"
            borderColor="line"
            css={{ '& a': { textDecoration: 'underline' } }}
          >
            <Diamond kind={outcome} size={12} />
            <Box flex="1" minW="0" fontWeight="600">
              <Link to={`/reach/${encodeURIComponent(one.title)}`}>{one.name}</Link>
            </Box>
            <Link to={withQuery('/fleet', { title: one.title, outcome })}>
              {one.perPerson ? some(one.units, 'person on a device', 'people on devices') : some(one.units, 'device')}
            </Link>
          </Flex>
        ))}
      </Box>
    </Part>
  )
}
