import { Box, Flex, Grid } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import type { Relation, TitlePageData } from '../api/catalogue'
import type { Editing } from '../state/useEdit'
import type { TitleAddress } from '../state/useTitleAddress'

const RelationsWindow = lazy(() => import('./RelationsWindow').then(part => ({ default: part.RelationsWindow })))

interface Props {
  page: TitlePageData
  address: TitleAddress
  editing: Editing
}

/** What it stands with: what it needs above, what it replaces at its side, what it cannot stand beside below. */
export function RelationGraph({ page, address, editing }: Props) {
  const { version } = address
  const { window: open, open: setOpen } = address
  const of = (...kinds: readonly string[]) => page.relations.filter(relation => kinds.includes(relation.kind))
  const needs = of('needs')
  const sides = of('replaces', 'replaced-by')
  const against = of('conflicts')
  const below = of('needed-by')
  return (
    <Box as="section" aria-label="Relations" mt="4.5">
      <Flex align="baseline" gap="2" mb="2">
        <Box as="h2" fontWeight="700">
          Relations
        </Box>
        <Button variant="text" size="xs" textStyle="second" onClick={() => setOpen('relations')}>
          edit
        </Button>
      </Flex>
      {page.relations.length === 0 && (
        <Box color="ink2" textStyle="second">
          No relations.
        </Box>
      )}
      {page.relations.length > 0 && (
        <Grid templateColumns="auto auto" justifyContent="start" textStyle="second">
          <Box />
          <Box>
            {needs.map(relation => (
              <Other key={relation.title} relation={relation} words={`needs ${relation.detail}`} above />
            ))}
          </Box>
          <Box alignSelf="center" minW="0">
            {sides.map(relation => (
              <Box key={relation.title} mb="1">
                <Flex align="center">
                  <Node relation={relation} />
                  <Box flex="1" minW="12px" borderTopWidth="2px" borderColor="ink3" aria-hidden="true" />
                </Flex>
                <Box color="ink2" pl="1">
                  {relation.kind === 'replaces' ? `replaced, ${relation.detail}` : 'replaces it'}
                </Box>
              </Box>
            ))}
          </Box>
          <Flex
            align="center"
            justify="center"
            px="2.5"
            py="1.5"
            borderRadius="lg"
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
      {open === 'relations' && (
        <Suspense fallback={null}>
          <RelationsWindow page={page} version={version} editing={editing} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
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
    <Flex align="center" gap="2" h="26px" color="ink2">
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
      px="2.5"
      py="1.5"
      borderRadius="lg"
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
