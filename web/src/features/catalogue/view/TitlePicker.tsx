import { Picker } from '../../../shared/ui/Picker'
import { useTitleList } from '../api/catalogue'

interface Props {
  label: string
  value?: string | undefined
  /** Told its id. */
  onChoose: (title: string) => void
  /** The ids of those that are not offered. */
  without?: readonly string[]
  width?: string
}

/** A title of the catalogue, found by a few letters of its name or maker. */
export function TitlePicker({ label, value, onChoose, without = [], width }: Props) {
  const titles = useTitleList()
  const items = (titles.data ?? [])
    .filter(title => !without.includes(title.id))
    .map(title => ({ id: title.id, name: title.name, second: title.maker }))
  return (
    <Picker
      label={label}
      labelHidden
      placeholder={label}
      items={items}
      value={value}
      onChoose={onChoose}
      empty={titles.data === undefined ? 'Loading the titles…' : 'No title is called that.'}
      {...(width !== undefined && { width })}
    />
  )
}
