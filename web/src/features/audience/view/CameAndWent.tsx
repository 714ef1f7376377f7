import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { count, date, fullInstant } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { Button } from '../../../shared/ui/Button'
import { PanelPart } from '../../../shared/ui/Panel'
import { Trend } from '../../../shared/ui/Trend'
import { useMembershipChanges } from '../api/audiences'
import { changeWords, trendWords } from '../model/changes'

const SHOWN = 8
const MINUTE_MS = 60_000

/** Who came into an audience and who left it lately, and why; of a collection how many it held, too. */
export function CameAndWent({ target, kind }: { target: string; kind: string }) {
  const found = useMembershipChanges(target)
  const now = useNow(MINUTE_MS)
  const [all, setAll] = useState(false)
  const { changes, sizes } = found.data ?? { changes: [], sizes: [] }
  return (
    <>
      {sizes.length > 0 && (
        <PanelPart heading="How many it held">
          <Trend
            points={sizes.map(size => ({ at: Date.parse(size.at), n: size.devices }))}
            until={now}
            words={trendWords(sizes, now)}
          />
          <Box color="ink2" textStyle="second">
            {trendWords(sizes, now)}
          </Box>
        </PanelPart>
      )}
      <PanelPart heading="Came and went">
        {found.data !== undefined && changes.length === 0 && <Box color="ink2">Nobody in three months.</Box>}
        {(all ? changes : changes.slice(0, SHOWN)).map((one, i) => (
          <Box key={`${i} ${one.member} ${one.at}`} py="0.5" css={{ '& a:hover': { textDecoration: 'underline' } }}>
            <Box as="span" color={one.came ? 'lagoon' : 'trouble'} fontWeight="700">
              {one.came ? '+' : '−'}
            </Box>{' '}
            <Link to={placeOf(one.member)}>{one.name}</Link>{' '}
            <Box as="span" color="ink2" textStyle="second" title={fullInstant(one.at)}>
              {date(one.at, now)}, {changeWords(kind, one)}
            </Box>
          </Box>
        ))}
        {changes.length > SHOWN && (
          <Button variant="text" size="inline" onClick={() => setAll(!all)} aria-expanded={all}>
            {all ? 'fewer' : `and ${count(changes.length - SHOWN)} more`}
          </Button>
        )}
      </PanelPart>
    </>
  )
}

function placeOf(member: string): string {
  const [kind = '', ...rest] = member.split(':')
  const id = encodeURIComponent(rest.join(':'))
  return kind === 'device'
    ? `/fleet/${id}`
    : kind === 'user'
      ? `/people/${id}`
      : `/audiences/${encodeURIComponent(member)}`
}
