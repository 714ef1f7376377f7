import { Box, Flex } from '@chakra-ui/react'
import { useNavigate } from 'react-router'
import { Picker } from '../../../shared/ui/Picker'
import { Window } from '../../../shared/ui/Window'
import { TitlePicker, useKits } from '../../catalogue'
import { assignAddress } from '../model/address'

interface Props {
  /** Whom it is for, in words. */
  name: string
  /** The same as targets. */
  targets: readonly string[]
  follows: 'device' | 'user'
  onClose: () => void
}

/** Chooses what is assigned to somebody who is known already; then the sheet opens with both. */
export function AssignWindow({ name, targets, follows, onClose }: Props) {
  const navigate = useNavigate()
  const kits = useKits()
  const withTitles = (kits.data ?? []).map(line => line.kit).filter(kit => (kit.titles ?? []).length > 0)
  return (
    <Window open onClose={onClose} heading={`Assign to ${name}`} width="460px" keepsNothing>
      <Flex direction="column" gap="3" minH="200px">
        <Box color="ink2">Choose what. Nothing happens before you publish.</Box>
        <TitlePicker
          label="A title"
          onChoose={title => void navigate(assignAddress({ title, include: targets, follows }))}
        />
        {withTitles.length > 0 && (
          <Picker
            label="or a kit"
            labelHidden
            placeholder="or a kit"
            items={withTitles.map(kit => ({ id: kit.id, name: kit.name, second: kit.description ?? '' }))}
            onChoose={id => {
              const kit = withTitles.find(one => one.id === id)
              const title = kit?.titles?.[0]
              if (kit !== undefined && title !== undefined) {
                void navigate(assignAddress({ title, kit: kit.id, include: targets, follows }))
              }
            }}
            empty="No kit is called that."
          />
        )}
      </Flex>
    </Window>
  )
}
