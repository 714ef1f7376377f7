import { Box, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { sentence } from '../../../shared/api'
import { useTitleList } from '../api/catalogue'
import type { Kit } from '../api/kits'
import { kitAddress, useSaveKit } from '../api/kits'
import { idOf } from '../../../shared/format'
import { rewritten } from '../model/kits'
import { moved } from '../model/record'
import { useRehearsedEdit } from '../state/useRehearsedEdit'
import { KitTitles } from './KitTitles'
import { RehearsedWindow } from './RehearsedWindow'
import { TextField } from '../../../shared/ui/TextField'
import { TitlePicker } from './TitlePicker'

interface Props {
  /** The kit that is edited; none for a new one. */
  kit: Kit | undefined
  revision: number
  onClose: () => void
  onSaved: (id: string) => void
}

const NOTHING: Kit = { id: '', name: '', description: '', titles: [] }

/** A kit: its name, its titles, and their order. */
export function KitWindow({ kit, revision, onClose, onSaved }: Props) {
  const titles = useTitleList()
  const save = useSaveKit()
  const [before] = useState(kit ?? NOTHING)
  // Somebody else may save meanwhile: the first try is told so, the next is made to what they saved.
  const [seen, setSeen] = useState<number | undefined>(revision)
  const [name, setName] = useState(before.name)
  const [description, setDescription] = useState(before.description)
  const [order, setOrder] = useState<readonly string[]>(before.titles)
  const written: Kit = { id: kit?.id ?? idOf(name), name: name.trim(), description, titles: [...order] }
  const wanted = kit === undefined ? written : rewritten(kit, before, written)
  const problem = wanted.id === '' ? 'Give it a name.' : order.length === 0 ? 'Add a title.' : undefined
  const rehearsed = useRehearsedEdit(
    kitAddress(wanted.id),
    { kit: kit ?? before, revision },
    { kit: wanted, revision },
    problem === undefined && kit !== undefined,
  )
  const named = order.map(id => ({ id, name: titles.data?.find(t => t.id === id)?.name ?? id }))
  return (
    <RehearsedWindow
      heading={kit === undefined ? 'A new kit' : `Edit ${kit.name}`}
      width="620px"
      rehearsed={rehearsed}
      pending={save.isPending}
      problem={problem}
      refusal={save.isError ? sentence(save.error) : undefined}
      onClose={onClose}
      onSave={why =>
        save.mutate(
          { kit: wanted, revision: seen ?? revision, ...(why !== undefined && { why }) },
          { onSuccess: () => onSaved(wanted.id), onError: () => setSeen(undefined) },
        )
      }
    >
      <Grid gap="2.5">
        <TextField label="Name" value={name} required onChange={setName} />
        <TextField label="What it is for" value={description} onChange={setDescription} />
        <Box fontWeight="600" textStyle="compact">
          Titles, in the order of installation
        </Box>
        <KitTitles
          titles={named}
          onMove={(at, to) => setOrder(moved(order, at, to - at))}
          onTakeOut={id => setOrder(order.filter(one => one !== id))}
        />
        <TitlePicker label="Add a title" without={order} onChoose={id => setOrder([...order, id])} />
      </Grid>
    </RehearsedWindow>
  )
}
