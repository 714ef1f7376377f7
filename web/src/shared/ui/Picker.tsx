import { Box, Combobox, createListCollection, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useMemo, useState } from 'react'
import { count } from '../format'
import { hasWords } from '../text'

/** One of the things that a picker offers. */
export interface PickerItem {
  readonly id: string
  readonly name: string
  /** What tells it from others of the same name. */
  readonly second?: string
  /** Stands at the right. */
  readonly aside?: string
  readonly group?: string
}

interface Props {
  label: string
  /** Whether the label is only for those who do not see. */
  labelHidden?: boolean
  placeholder: string
  items: readonly PickerItem[]
  /** The id of what is chosen; nothing when each choice is done with at once. */
  value?: string | undefined
  onChoose: (id: string) => void
  /** Whoever looks for the items by what is typed. Without, they are narrowed here. */
  onType?: (text: string) => void
  /** What stands in the list when nothing matches. */
  empty: ReactNode
  /** Below the list. */
  foot?: ReactNode
  width?: string
  /** Whether one types into it as soon as it is there. */
  autoFocus?: boolean
}

/** More are never drawn: one types to come nearer, and each letter would wait for them. */
const MOST_DRAWN = 100

/** A field in which one thing is chosen out of many by a few of its letters. Its list is drawn while it is open. */
export function Picker(props: Props) {
  const {
    label,
    labelHidden = false,
    placeholder,
    items,
    value,
    onChoose,
    onType,
    empty,
    foot,
    width = '100%',
    autoFocus = false,
  } = props
  const [written, setText] = useState<string | undefined>(undefined)
  // The name of what is chosen stands there until something else is typed, and narrows nothing.
  const text = written ?? items.find(item => item.id === value)?.name ?? ''
  const matching = useMemo(
    () => (onType === undefined ? items.filter(item => hasWords(written ?? '', item.name, item.second)) : items),
    [items, onType, written],
  )
  const shown = useMemo(() => matching.slice(0, MOST_DRAWN), [matching])
  const collection = useMemo(
    () =>
      createListCollection({
        items: [...shown],
        itemToValue: item => item.id,
        itemToString: item => item.name,
        groupBy: item => item.group ?? '',
      }),
    [shown],
  )
  const [walked, setWalked] = useState<string | null>(null)
  // Enter takes what one has walked to, or the first that matches what was typed.
  const highlighted = shown.some(item => item.id === walked)
    ? walked
    : written === undefined
      ? null
      : (shown[0]?.id ?? null)
  const typed = (to: string | undefined) => {
    setWalked(null)
    setText(to)
    onType?.(to ?? '')
  }
  return (
    <Combobox.Root
      collection={collection}
      value={value === undefined ? [] : [value]}
      onValueChange={change => change.value[0] !== undefined && onChoose(change.value[0])}
      // What is typed is held here from the key on: the part itself would put it back for a moment, and lose the next letter.
      inputValue={text}
      onInputValueChange={change => change.reason !== 'input-change' && typed(undefined)}
      selectionBehavior={value === undefined ? 'clear' : 'replace'}
      highlightedValue={highlighted}
      onHighlightChange={change => setWalked(change.highlightedValue)}
      openOnClick
      lazyMount
      unmountOnExit
      size="sm"
      w={width}
    >
      <Combobox.Label fontWeight="600" textStyle="compact" srOnly={labelHidden}>
        {label}
      </Combobox.Label>
      <Combobox.Control>
        <Combobox.Input
          onChange={event => typed(event.target.value)}
          placeholder={placeholder}
          autoFocus={autoFocus}
          borderColor="line"
          h="8"
          minH="8"
          px="2.5"
          bg="panel"
          textStyle="body"
        />
      </Combobox.Control>
      <Combobox.Positioner>
        <Combobox.Content bg="panel" borderWidth="1px" borderColor="line" boxShadow="md" p="1.5" maxH="50vh">
          <Combobox.Empty color="ink2" p="2.5">
            {empty}
          </Combobox.Empty>
          {collection.group().map(([group, members]) => (
            <Combobox.ItemGroup key={group}>
              {group !== '' && (
                <Combobox.ItemGroupLabel color="ink3" textStyle="second" px="2.5" pt="1.5" pb="0.5">
                  {group}
                </Combobox.ItemGroupLabel>
              )}
              {members.map(item => (
                <Combobox.Item
                  key={item.id}
                  item={item}
                  px="2.5"
                  py="1.5"
                  borderRadius="md"
                  cursor="pointer"
                  _highlighted={{ bg: 'lagoonSoft' }}
                >
                  <Line item={item} chosen={item.id === value} />
                </Combobox.Item>
              ))}
            </Combobox.ItemGroup>
          ))}
          {matching.length > shown.length && (
            <Box color="ink3" textStyle="second" px="2.5" py="1.5">
              and {count(matching.length - shown.length)} more: type to find them
            </Box>
          )}
          {foot}
        </Combobox.Content>
      </Combobox.Positioner>
    </Combobox.Root>
  )
}

function Line({ item, chosen }: { item: PickerItem; chosen: boolean }) {
  return (
    <Flex flex="1" minW="0" gap="2.5" align="baseline" textStyle="body">
      <Box fontWeight={chosen ? '700' : '600'} whiteSpace="nowrap" truncate>
        {item.name}
      </Box>
      <Box flex="1" minW="0" color="ink3" textStyle="second" truncate>
        {item.second}
      </Box>
      <Box color="ink2" textStyle="second" whiteSpace="nowrap">
        {item.aside}
      </Box>
    </Flex>
  )
}
