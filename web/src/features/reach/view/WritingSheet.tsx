import { memo, Suspense, useCallback, useMemo } from 'react'
import { side } from '../../../shared/ui/Page'
import { Panel } from '../../../shared/ui/Panel'
import { useAddressState } from '../../../shared/useAddressState'
import type { WrittenBody } from '../../assign'
import { ASSIGN_ADDRESS, AssignSheet } from '../../assign'
import { useKits } from '../../catalogue'

interface Props {
  title: string
  titleName: string
  /** The OU that is chosen on the map, and its name; nothing where none is. */
  ou: string | undefined
  ouName: string | undefined
  onWritten: (written: WrittenBody | undefined) => void
}

/** The sheet beside the map, opened as the address says. */
export const WritingSheet = memo(function WritingSheet({ title, titleName, ou, ouName, onWritten }: Props) {
  const [assigning, assign] = useAddressState(ASSIGN_ADDRESS)
  const kits = useKits()
  const { assign: id, kit } = assigning
  const opening = useMemo(
    () => ({
      subject: kit === undefined ? `title:${title}` : `kit:${kit}`,
      include: assigning.for,
      also: assigning.also,
      follows: assigning.follows,
      intent: assigning.intent,
    }),
    [title, kit, assigning],
  )
  const chosen = useMemo(
    () => (ou === undefined || ouName === undefined ? undefined : { target: `ou:${ou}`, name: ouName }),
    [ou, ouName],
  )
  const close = useCallback(
    () => assign({ assign: undefined, kit: undefined, for: [], also: [], follows: 'device', intent: 'required' }),
    [assign],
  )
  return (
    <Suspense fallback={<Panel aria-label="Assignment" column {...side('702px')} />}>
      <AssignSheet
        key={`${id ?? ''} ${kit ?? ''} ${[...assigning.for, ...assigning.also].join(' ')}`}
        id={id === 'new' ? undefined : id}
        opening={opening}
        name={kit === undefined ? titleName : (kits.data?.find(line => line.kit.id === kit)?.kit.name ?? kit)}
        chosen={chosen}
        onWritten={onWritten}
        onClose={close}
      />
    </Suspense>
  )
})
