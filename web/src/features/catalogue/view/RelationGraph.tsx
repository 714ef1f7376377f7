import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/Button'
import type { Relation, TitlePageData } from '../api/catalogue'
import type { Editing } from '../model/useEdit'
import { RelationsWindow } from './RelationsWindow'

interface Props {
  page: TitlePageData
  version: string
  editing: Editing
}

/** What it stands with: what it needs above, what it replaces at its side, what it cannot stand beside below. */
export function RelationGraph({ page, version, editing }: Props) {
  const [open, setOpen] = useState(false)
  const of = (...kinds: readonly string[]) => page.relations.filter(relation => kinds.includes(relation.kind))
  const needs = of('needs')
  const sides = of('replaces', 'replaced-by')
  const against = of('conflicts')
  const below = of('needed-by')
  return (
    <Box as="section" aria-label="Relations" mt="18px">
      <Flex align="baseline" gap="8px" mb="8px">
        <Box as="h2" fontWeight="700">
          Relations
        </Box>
        <Button variant="text" h="20px" fontSize="12.3px" onClick={() => setOpen(true)}>
          edit
        </Button>
      </Flex>
      {page.relations.length === 0 && (
        <Box color="ink2" fontSize="12.3px">
          No relations.
        </Box>
      )}
      {page.relations.length > 0 && (
        <Grid templateColumns="auto auto" justifyContent="start" fontSize="12.3px">
          <Box />
          <Box>
            {needs.map(relation => (
              <Other key={relation.title} relation={relation} words={`needs ${relation.detail}`} above />
            ))}
          </Box>
          <Box alignSelf="center" minW="0">
            {sides.map(relation => (
              <Box key={relation.title} mb="4px">
                <Flex align="center">
                  <Node relation={relation} />
                  <Box flex="1" minW="12px" borderTopWidth="2px" borderColor="ink3" aria-hidden="true" />
                </Flex>
                <Box color="ink2" pl="4px">
                  {relation.kind === 'replaces' ? `replaced, ${relation.detail}` : 'replaces it'}
                </Box>
              </Box>
            ))}
          </Box>
          <Flex
            align="center"
            justify="center"
            px="10px"
            py="5px"
            borderRadius="7px"
            borderWidth="1px"
            borderColor="lagoonLine"
            bg="lagoonSoft"
            fontWeight="700"
            textAlign="center"
          >
            {page.record.name}
          </Flex>
          <Box />
          <Box>
            {against.map(relation => (
              <Other key={relation.title} relation={relation} words="conflicts with" conflict />
            ))}
            {below.map(relation => (
              <Other key={relation.title} relation={relation} words="is needed by" />
            ))}
          </Box>
        </Grid>
      )}
      {open && <RelationsWindow page={page} version={version} editing={editing} onClose={() => setOpen(false)} />}
    </Box>
  )
}

function Other({
  relation,
  words,
  above = false,
  conflict = false,
}: {
  relation: Relation
  words: string
  above?: boolean
  conflict?: boolean
}) {
  const line = (
    <Flex align="center" gap="7px" h="26px" color="ink2">
      <Box
        h="100%"
        borderLeftWidth="2px"
        borderStyle={conflict ? 'dashed' : 'solid'}
        borderColor={conflict ? 'trouble' : 'lagoonLine'}
        aria-hidden="true"
      />
      {words}
    </Flex>
  )
  return (
    <Flex direction="column" align="center" maxW="100%">
      {!above && line}
      <Node relation={relation} />
      {above && line}
    </Flex>
  )
}

function Node({ relation }: { relation: Relation }) {
  return (
    <Box
      px="10px"
      py="5px"
      borderRadius="7px"
      borderWidth="1px"
      borderColor="line"
      bg="panel"
      maxW="100%"
      textAlign="center"
      css={{ '& a:hover': { textDecoration: 'underline' } }}
    >
      <Link to={`/catalogue/${encodeURIComponent(relation.title)}`}>{relation.name}</Link>
    </Box>
  )
}
