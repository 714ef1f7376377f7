import { useState } from 'react'
import { RuleField } from '../../../shared/ui/RuleField'
import { withFits, withVariant } from '../model/record'
import type { Editing } from '../state/useEdit'
import type { TitleAddress } from '../state/useTitleAddress'
import { EditWindow } from './EditWindow'

interface Props {
  address: TitleAddress
  rule: string
  editing: Editing
  onClose: () => void
}

/** The devices that a variant fits. */
export function FitsWindow({ address, rule, editing, onClose }: Props) {
  const [text, setText] = useState(rule)
  return (
    <EditWindow
      heading={`Where variant ${address.variant} fits`}
      editing={editing}
      onClose={onClose}
      edit={record => withVariant(record, address, variant => withFits(variant, text))}
    >
      <RuleField value={text} rows={4} onChange={setText} />
    </EditWindow>
  )
}
