import { memo, useMemo } from 'react'
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

const NONE: readonly string[] = []

/** A title of the catalogue, found by a few letters of its name or maker. Not drawn anew while what it is told is the very same. */
export const TitlePicker = memo(function TitlePicker({ label, value, onChoose, without = NONE, width }: Props) {
  const titles = useTitleList()
  const items = useMemo(
    () =>
      (titles.data ?? [])
        .filter(title => !without.includes(title.id))
        .map(title => ({ id: title.id, name: title.name, second: title.maker })),
    [titles.data, without],
  )
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
})
