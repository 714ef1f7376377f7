import { Box, Flex } from '@chakra-ui/react'
import { side } from '../../../shared/ui/Page'
import { Panel, PanelHead } from '../../../shared/ui/Panel'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { Diamond } from '../../../shared/ui/Diamond'
import { some } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { Kbd } from '../../../shared/ui/Kbd'
import { assignAddress } from '../../assign'
import type { Audience } from '../../audience'
import { AudiencePicker } from '../../audience'
import { useDraft, useDropEdit, usePutEdit } from '../../draft'
import type { KitPageData } from '../api/kits'

type Wanted = 'required' | 'uninstall' | 'none'

/** Who gets the kit, and where one assigns it; every edit goes into the draft. */
export function KitAssign({ page }: { page: KitPageData }) {
  const draft = useDraft()
  const put = usePutEdit()
  const drop = useDropEdit()
  const [found, setFound] = useState<Audience | undefined>(undefined)
  const subject = `kit:${page.kit.id}`
  const edits = (draft.data?.edits ?? []).filter(edit => edit.subject === subject)
  const places = edits.flatMap(edit => edit.places.map(place => ({ ...place, edit: edit.id })))
  const assign = (ou: string, intent: Wanted) => put.mutate({ subject, ou, intent, binding: false, choices: {} })
  const first = page.titles[0]
  const trouble = put.error ?? drop.error
  const navigate = useNavigate()
  useKeys('The kit', [
    {
      key: 'a',
      says: 'Assign the kit',
      act: () => first !== undefined && void navigate(assignAddress({ title: first.id, kit: page.kit.id })),
    },
  ])
  return (
    <Panel aria-label="Assigned" {...side('420px')} padded>
      <PanelHead
        heading="Assigned"
        aside={
          first !== undefined && (
            <Button
              variant="chosen"
              onClick={() => void navigate(assignAddress({ title: first.id, kit: page.kit.id }))}
            >
              <Diamond kind="required" size={11} /> Assign… <Kbd>A</Kbd>
            </Button>
          )
        }
      />
      {page.assigned.length === 0 && edits.length === 0 && (
        <Box color="ink2" textStyle="compact">
          To nobody yet. Find an OU below: all the titles of the kit follow its devices.
        </Box>
      )}
      {page.assigned
        .filter(one => places.every(place => place.target !== one.target))
        .map(one => (
          <Flex
            key={`${one.assignment} ${one.target}`}
            align="center"
            gap="2"
            py="1.5"
            borderTopWidth="1px"
            borderColor="line"
          >
            <Diamond kind={one.intent} size={11} />
            <Box flex="1" minW="0" css={{ '& a:hover': { textDecoration: 'underline' } }}>
              {intentWords(one.intent)} on{' '}
              <b>
                {first === undefined ? (
                  one.targetName
                ) : (
                  <Link to={assignAddress({ title: first.id, kit: page.kit.id, id: one.assignment })}>
                    {one.targetName}
                  </Link>
                )}
              </b>
            </Box>
            {one.target.startsWith('ou:') && (
              <Button size="sm" onClick={() => assign(one.target.slice('ou:'.length), 'none')}>
                End
              </Button>
            )}
          </Flex>
        ))}
      {places.map(place => (
        <Flex
          key={`${place.edit} ${place.target}`}
          align="center"
          gap="2"
          py="1.5"
          borderTopWidth="1px"
          borderColor="line"
        >
          <Box flex="1" color="ink2">
            in the draft: {intentWords(place.intent).toLowerCase()} on <b>{place.name ?? 'an OU that has gone'}</b>
          </Box>
          <Button size="sm" onClick={() => drop.mutate(place.edit)}>
            Drop
          </Button>
        </Flex>
      ))}
      <Box mt="3">
        <AudiencePicker label="Find an OU to assign it to" follows="device" only={['ou']} onChoose={setFound} />
      </Box>
      {found !== undefined && (
        <Flex align="center" gap="2" py="2">
          <Box flex="1" minW="0">
            <Box fontWeight="600" truncate>
              {found.name}
            </Box>
            <Box color="ink2" textStyle="second" truncate>
              {[found.where, some(found.devices, 'device')].filter(part => part !== '').join(' · ')}
            </Box>
          </Box>
          <Button size="sm" aria-label={`Require on ${found.name}`} onClick={() => assign(ouOf(found), 'required')}>
            <Diamond kind="required" size={11} /> Require
          </Button>
          <Button size="sm" aria-label={`Remove from ${found.name}`} onClick={() => assign(ouOf(found), 'uninstall')}>
            <Diamond kind="uninstall" size={11} /> Remove
          </Button>
        </Flex>
      )}
      {trouble !== null && (
        <Box role="alert" color="trouble" mt="2">
          {sentence(trouble)}
        </Box>
      )}
    </Panel>
  )
}

/** The id of an audience that is an OU. */
function ouOf(audience: Audience): string {
  return audience.target.slice('ou:'.length)
}

function intentWords(intent: string): string {
  return intent === 'uninstall' ? 'Remove' : intent === 'none' ? 'End' : intent === 'available' ? 'Offer' : 'Require'
}
