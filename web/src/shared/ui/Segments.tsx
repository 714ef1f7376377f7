import { SegmentGroup } from '@chakra-ui/react'
import { memo } from 'react'

interface Props<T extends string> {
  /** What is chosen between. */
  label: string
  value: T
  choices: readonly { readonly value: T; readonly words: string }[]
  onChange: (value: T) => void
}

/** One of a few, all of them in sight. The arrow keys choose. Not drawn anew while what it is told is the very same. */
export const Segments = memo(SegmentsPart) as typeof SegmentsPart

function SegmentsPart<T extends string>({ label, value, choices, onChange }: Props<T>) {
  const choose = (chosen: string | null) => {
    const found = choices.find(choice => choice.value === chosen)
    if (found !== undefined) {
      onChange(found.value)
    }
  }
  return (
    <SegmentGroup.Root
      value={value}
      onValueChange={change => choose(change.value)}
      aria-label={label}
      size="sm"
      bg="panel"
      borderWidth="1px"
      borderColor="line"
      borderRadius="md"
      boxShadow="none"
      flexShrink="0"
    >
      <SegmentGroup.Indicator bg="lagoonSoft" borderWidth="1px" borderColor="lagoonLine" boxShadow="none" />
      {choices.map(choice => (
        <SegmentGroup.Item
          key={choice.value}
          value={choice.value}
          h="7"
          px="2.5"
          cursor="pointer"
          _before={{ bg: 'none' }}
        >
          <SegmentGroup.ItemText textStyle="compact" fontWeight="600" color="ink">
            {choice.words}
          </SegmentGroup.ItemText>
          <SegmentGroup.ItemHiddenInput />
        </SegmentGroup.Item>
      ))}
    </SegmentGroup.Root>
  )
}
