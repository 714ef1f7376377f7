import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { some } from '../../../shared/format'
import type { OuReach } from '../api/reach'
import { useOuTrail } from '../api/reach'
import { AssignPart } from './AssignPart'
import { ProportionBar } from './ProportionBar'
import { RungList } from './RungList'

interface Props {
  title: string
  titleName: string
  ou: OuReach
}

/** What decides in the chosen part, and where one assigns. */
export function OuPanel({ title, titleName, ou }: Props) {
  const trail = useOuTrail(title, ou.id)
  if (failure(trail) !== undefined) {
    return (
      <Frame label="The chosen part">
        <Box color="trouble">{sentence(trail.error)}</Box>
      </Frame>
    )
  }
  if (trail.data === undefined) {
    return <Frame label={ou.name} />
  }
  const { name, path, devices, people, fenced, counts, after, rungs } = trail.data
  return (
    <Frame label={ou.name}>
      <Box opacity={trail.data.id === ou.id ? 1 : 0.5}>
        <Box as="h2" fontSize="17px" fontWeight="700">
          {name}
        </Box>
        <Box color="ink2" fontSize="13px" mb="12px">
          {path.length > 2 && `${path.slice(1).join(' › ')} · `}
          {some(devices, 'device')}, {some(people, 'person', 'people')}
          {fenced && ' · fenced'}
        </Box>
        {devices > 0 && <ProportionBar title={title} ou={ou.id} counts={after ?? counts} />}
        {after !== undefined && (
          <Box color="ink2" fontSize="12.3px" mt="4px">
            as the draft would make it
          </Box>
        )}
        <Flex mt="16px" mb="4px" align="baseline" justify="space-between">
          <Box as="h3" fontWeight="700">
            What decides here
          </Box>
          {rungs.length > 1 && (
            <Box color="ink2" fontSize="12.3px">
              strongest first
            </Box>
          )}
        </Flex>
        {rungs.length === 0 ? (
          <Box color="ink2" pt="2px">
            {trail.data.sentence}
          </Box>
        ) : (
          <RungList rungs={rungs} />
        )}
      </Box>
      <AssignPart title={title} titleName={titleName} ou={ou} />
    </Frame>
  )
}

function Frame({ label, children }: { label: string; children?: ReactNode }) {
  return (
    <Box
      as="section"
      aria-label={label}
      w="378px"
      flexShrink="0"
      h="100%"
      overflowY="auto"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      p="14px 16px"
    >
      {children}
    </Box>
  )
}
