import { Box, Checkbox, Flex } from '@chakra-ui/react'
import { memo, useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { Diamond } from '../../../shared/ui/Diamond'
import { Later } from '../../../shared/ui/Later'
import { Kbd } from '../../../shared/ui/Kbd'
import { useKeys } from '../../../shared/keys'
import { useSteady } from '../../../shared/useSteady'
import { ChooseWindow, fixedWords, useChoosable } from '../../catalogue'
import { assignAddress } from '../../assign'
import { editAt, useDraft, useDropEdit, usePutEdit } from '../../draft'
import type { OuTrail } from '../api/reach'

interface Props {
  title: string
  titleName: string
  ou: Pick<OuTrail, 'id' | 'name' | 'here'>
}

type Wanted = 'required' | 'available' | 'uninstall' | 'none'

/** Puts edits for the chosen OU into the draft. */
export const AssignPart = memo(function AssignPart({ title, titleName, ou }: Props) {
  const draft = useDraft()
  const navigate = useNavigate()
  const put = usePutEdit()
  const drop = useDropEdit()
  const [wish, setWish] = useState<{ ou: string; binding: boolean } | null>(null)
  const [choosing, setChoosing] = useState(false)
  const release = useChoosable(title)
  const subject = `title:${title}`
  const here = ou.here.find(one => one.kit === undefined)
  const kits = ou.here.filter(one => one.kit !== undefined)
  const binding = wish?.ou === ou.id ? wish.binding : (here?.binding ?? false)
  const edit = editAt(draft.data?.edits ?? [], subject, ou.id)
  const fixed = edit?.choices ?? here?.choices ?? {}
  const assign = (intent: Wanted, choices = fixed) =>
    put.mutate({
      subject,
      ou: ou.id,
      intent,
      binding: intent !== 'none' && binding,
      choices: intent === 'required' || intent === 'available' ? choices : {},
    })
  const rebind = useSteady((on: boolean) => {
    setWish({ ou: ou.id, binding: on })
    if (here !== undefined) {
      put.mutate({ subject, ou: ou.id, intent: here.intent, binding: on, choices: fixed })
    }
  })
  const open = () =>
    void navigate(
      assignAddress({ title, ...(here === undefined ? { include: [`ou:${ou.id}`] } : { id: here.assignment }) }),
    )
  useKeys('The chosen part', [
    { key: 'r', says: `Require on ${ou.name}`, act: () => assign('required') },
    { key: 'o', says: `Offer on ${ou.name}`, act: () => assign('available') },
    { key: 'x', says: `Remove from ${ou.name}`, act: () => assign('uninstall') },
    { key: 'a', says: `Assign ${titleName} to ${ou.name} with all that can be said`, act: () => open() },
    ...(here === undefined ? [] : [{ key: 'e', says: 'End what is assigned here', act: () => assign('none') }]),
  ])
  const trouble = put.error ?? drop.error
  // What comes and goes stands above the buttons: they stand on the ground, and stay where they are.
  return (
    <>
      <Box color="ink2" mb="2.5">
        Assign <b>{titleName}</b> to {ou.name}, following the device
      </Box>
      {release !== undefined && (here?.intent === 'required' || here?.intent === 'available') && (
        <Flex mb="2.5" gap="2" align="baseline" textStyle="compact" color="ink2" wrap="wrap">
          {fixedWords(release, fixed)}
          <Button variant="text" size="xs" textStyle="second" onClick={() => setChoosing(true)}>
            Choose…
          </Button>
        </Flex>
      )}
      {kits.map(kit => (
        <Box key={kit.assignment} mb="2.5" textStyle="compact" color="ink2">
          The kit {kit.kit}{' '}
          {kit.intent === 'uninstall' ? 'removes' : kit.intent === 'available' ? 'offers' : 'requires'} it here.
        </Box>
      ))}
      {edit !== undefined && (
        <Flex mb="2.5" gap="2" align="center" color="ink2">
          This part is in the draft.
          <Button size="xs" onClick={() => drop.mutate(edit.id)}>
            Drop
          </Button>
        </Flex>
      )}
      {trouble !== null && (
        <Box role="alert" color="trouble" mb="2.5">
          {sentence(trouble)}
        </Box>
      )}
      <Flex gap="2" wrap="wrap">
        <Button
          size="lg"
          variant={here?.intent === 'required' ? 'chosen' : 'plain'}
          aria-pressed={here?.intent === 'required'}
          onClick={() => assign('required')}
        >
          <Diamond kind="required" /> Require <Kbd>R</Kbd>
        </Button>
        <Button
          size="lg"
          variant={here?.intent === 'available' ? 'chosen' : 'plain'}
          aria-pressed={here?.intent === 'available'}
          onClick={() => assign('available')}
        >
          <Diamond kind="available" /> Offer <Kbd>O</Kbd>
        </Button>
        <Button
          size="lg"
          variant={here?.intent === 'uninstall' ? 'chosen' : 'plain'}
          aria-pressed={here?.intent === 'uninstall'}
          onClick={() => assign('uninstall')}
        >
          <Diamond kind="uninstall" /> Remove <Kbd>X</Kbd>
        </Button>
        {here !== undefined && (
          <Button size="lg" onClick={() => assign('none')}>
            End <Kbd>E</Kbd>
          </Button>
        )}
        <Button size="lg" onClick={open}>
          Assign… <Kbd>A</Kbd>
        </Button>
      </Flex>
      <BindingTick on={binding} onChange={rebind} />
      <Later open={choosing}>
        {choosing && release !== undefined && (
          <ChooseWindow
            release={release}
            values={fixed}
            heading={`What ${ou.name} gets of ${titleName}`}
            onClose={() => setChoosing(false)}
            onChosen={values => {
              assign(here?.intent === 'available' ? 'available' : 'required', values)
              setChoosing(false)
            }}
          />
        )}
      </Later>
    </>
  )
})

/** Apart, as it is the dearest thing to draw here, and the part around it is drawn anew with each step on the map. */
const BindingTick = memo(function BindingTick({ on, onChange }: { on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Checkbox.Root mt="2.5" size="sm" checked={on} onCheckedChange={change => onChange(change.checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control borderColor="ink3" />
      <Checkbox.Label fontWeight="400" textStyle="compact" color="ink2">
        binding: crosses fences, cannot be undone below
      </Checkbox.Label>
    </Checkbox.Root>
  )
})
