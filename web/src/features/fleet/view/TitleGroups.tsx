import { Box, chakra } from '@chakra-ui/react'
import type { DiamondKind } from '../../../shared/ui/Diamond'
import { Diamond } from '../../../shared/ui/Diamond'
import { count, fromNow, fullInstant } from '../../../shared/format'
import { Progress } from '../../../shared/ui/Progress'
import { useNow } from '../../../shared/useNow'
import type { TitleLine } from '../api/fleet'
import { grouped, unitOf, versions } from '../model/groups'

interface Props {
  lines: readonly TitleLine[]
  chosen: TitleLine | undefined
  onChoose: (line: TitleLine) => void
}

/** The device's titles, the most pressing first. */
export function TitleGroups({ lines, chosen, onChoose }: Props) {
  const now = useNow()
  return (
    <>
      {grouped(lines).map(group => (
        <Box as="section" key={group.id} aria-label={group.name}>
          <Box
            display="flex"
            justifyContent="space-between"
            px="3.5"
            pt="2"
            pb="1.5"
            color="ink3"
            textStyle="second"
            fontWeight="700"
            borderBottomWidth="1px"
            borderColor="line"
          >
            <h2>{group.name}</h2>
            <span>{count(group.lines.length)}</span>
          </Box>
          {group.lines.map(line => (
            <Line key={unitOf(line)} line={line} now={now} chosen={line === chosen} onChoose={() => onChoose(line)} />
          ))}
        </Box>
      ))}
    </>
  )
}

interface LineProps {
  line: TitleLine
  now: number
  chosen: boolean
  onChoose: () => void
}

function Line({ line, now, chosen, onChoose }: LineProps) {
  const kind: DiamondKind = line.outcome ?? 'none'
  return (
    <chakra.button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      display="grid"
      gridTemplateColumns="22px minmax(130px, 1fr) 126px minmax(180px, 1.7fr) 110px"
      gap="2.5"
      alignItems="center"
      w="100%"
      minH="41px"
      px="3.5"
      py="1.5"
      textAlign="left"
      cursor="pointer"
      borderBottomWidth="1px"
      borderColor="line"
      bg={chosen ? 'lagoonSoft' : undefined}
      _hover={{ bg: chosen ? 'lagoonSoft' : 'hover' }}
      _focusVisible={{ outlineOffset: '-2px' }}
    >
      <Diamond kind={kind} />
      <Box minW="0">
        <Box fontWeight="600" truncate>
          {line.titleName}
        </Box>
        {line.personName !== undefined && (
          <Box color="ink2" textStyle="second" truncate>
            for {line.personName}
          </Box>
        )}
      </Box>
      <Box color="ink2" textStyle="compact" truncate>
        {versions(line)}
      </Box>
      <Box color={line.group === 'needs' ? 'trouble' : 'ink2'} textStyle="compact" minW="0">
        {line.line}
        {line.percent !== undefined && (
          <Box mt="1">
            <Progress percent={line.percent} label={`${line.titleName}: ${line.line}`} width="260px" />
          </Box>
        )}
      </Box>
      <Box textAlign="right" textStyle="compact" {...(line.due !== undefined && { title: fullInstant(line.due) })}>
        {end(line, now)}
      </Box>
    </chakra.button>
  )
}

function end(line: TitleLine, now: number): string {
  if (line.percent !== undefined) {
    return `${line.percent} %`
  }
  if (line.due !== undefined) {
    return Date.parse(line.due) < now ? 'any moment' : fromNow(line.due, now)
  }
  return line.end ?? ''
}
