import type { ReactNode } from 'react'
import { useState } from 'react'
import { address } from '../api/catalogue'
import type { Edit, Editing } from '../state/useEdit'
import { useRehearsedEdit } from '../state/useRehearsedEdit'
import { RehearsedWindow } from './RehearsedWindow'

interface Props {
  heading: string
  width?: string
  editing: Editing
  edit: Edit
  onClose: () => void
  /** Why it cannot be saved as it is. */
  problem?: string | undefined
  children: ReactNode
}

/** A window in which one part of a title is edited. */
export function EditWindow({ heading, width = '600px', editing, edit, onClose, problem, children }: Props) {
  // Somebody else may save meanwhile: the first try is told so, the next is made to what they saved.
  const [seen, setSeen] = useState<number | undefined>(editing.revision)
  const before = editing.change(record => record)
  const rehearsed = useRehearsedEdit(address(before.record.id), before, editing.change(edit), problem === undefined)
  return (
    <RehearsedWindow
      heading={heading}
      width={width}
      rehearsed={rehearsed}
      pending={editing.pending}
      problem={problem}
      refusal={editing.refusal}
      onSave={why => editing.save(edit, onClose, { why, revision: seen, onRefused: () => setSeen(undefined) })}
      onClose={onClose}
    >
      {children}
    </RehearsedWindow>
  )
}
