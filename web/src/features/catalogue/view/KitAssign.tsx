import { Box, Flex, Input } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { Diamond } from '../../../shared/Diamond'
import { useDraft, useDropEdit, usePutEdit } from '../../draft'
import { useSearch } from '../../search'
import type { KitPageData } from '../api/kits'

type Wanted = 'required' | 'uninstall' | 'none'

/** Who gets the kit, and where one assigns it; every edit goes into the draft. */
export function KitAssign({ page }: { page: KitPageData }) {
  const draft = useDraft()
  const put = usePutEdit()
  const drop = useDropEdit()
  const [words, setWords] = useState('')
  const found = useSearch(words)
  const ous = words.trim() === '' ? [] : (found.data?.hits ?? []).filter(hit => hit.kind === 'ou')
  const subject = `kit:${page.kit.id}`
  const edits = (draft.data?.edits ?? []).filter(edit => edit.subject === subject)
  const places = edits.flatMap(edit => edit.places.map(place => ({ ...place, edit: edit.id })))
  const assign = (ou: string, intent: Wanted) => put.mutate({ subject, ou, intent, binding: false, choices: {} })
  const first = page.titles[0]
  const trouble = put.error ?? drop.error
  return (
    <Box
      as="section"
      aria-label="Assigned"
      w="420px"
      flexShrink="0"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      p="12px 16px"
    >
      <Box as="h2" fontWeight="700" mb="6px">
        Assigned
      </Box>
      {page.assigned.length === 0 && edits.length === 0 && (
        <Box color="ink2" fontSize="13px">
          To nobody yet. Find an OU below: all the titles of the kit follow its devices.
        </Box>
      )}
      {page.assigned
        .filter(one => places.every(place => place.target !== `ou:${one.ou}`))
        .map(one => (
          <Flex
            key={`${one.assignment} ${one.ou}`}
            align="center"
            gap="8px"
            py="5px"
            borderTopWidth="1px"
            borderColor="line"
          >
            <Diamond kind={one.intent === 'uninstall' ? 'uninstall' : 'required'} size={11} />
            <Box flex="1" minW="0" css={{ '& a:hover': { textDecoration: 'underline' } }}>
              {intentWords(one.intent)} on{' '}
              <b>
                {first === undefined ? (
                  one.ouName
                ) : (
                  <Link to={`/reach/${encodeURIComponent(first.id)}?ou=${encodeURIComponent(one.ou)}`}>
                    {one.ouName ?? 'an OU that has gone'}
                  </Link>
                )}
              </b>
            </Box>
            <Button h="26px" onClick={() => assign(one.ou, 'none')}>
              End
            </Button>
          </Flex>
        ))}
      {places.map(place => (
        <Flex
          key={`${place.edit} ${place.target}`}
          align="center"
          gap="8px"
          py="5px"
          borderTopWidth="1px"
          borderColor="line"
        >
          <Box flex="1" color="ink2">
            in the draft: {intentWords(place.intent).toLowerCase()} on <b>{place.name ?? 'an OU that has gone'}</b>
          </Box>
          <Button h="26px" onClick={() => drop.mutate(place.edit)}>
            Drop
          </Button>
        </Flex>
      ))}
      <Input
        mt="12px"
        aria-label="Find an OU to assign it to"
        placeholder="Find an OU to assign it to"
        value={words}
        onChange={event => setWords(event.target.value)}
        h="32px"
        px="8px"
        borderColor="line"
      />
      {ous.map(ou => (
        <Flex key={ou.id} align="center" gap="8px" py="5px" borderTopWidth="1px" borderColor="line">
          <Box flex="1" minW="0">
            <Box fontWeight="600" truncate>
              {ou.name}
            </Box>
            <Box color="ink2" fontSize="12.3px" truncate>
              {ou.second}
            </Box>
          </Box>
          <Button h="28px" aria-label={`Require on ${ou.name}`} onClick={() => assign(ou.id, 'required')}>
            <Diamond kind="required" size={11} /> Require
          </Button>
          <Button h="28px" aria-label={`Remove from ${ou.name}`} onClick={() => assign(ou.id, 'uninstall')}>
            <Diamond kind="uninstall" size={11} /> Remove
          </Button>
        </Flex>
      ))}
      {words.trim() !== '' && found.data !== undefined && ous.length === 0 && (
        <Box color="ink2" fontSize="13px" mt="6px">
          No OU is called that.
        </Box>
      )}
      {trouble !== null && (
        <Box role="alert" color="trouble" mt="8px">
          {sentence(trouble)}
        </Box>
      )}
    </Box>
  )
}

function intentWords(intent: string): string {
  return intent === 'uninstall' ? 'Remove' : intent === 'none' ? 'End' : 'Require'
}
