import { Box, Flex } from '@chakra-ui/react'

/** One stretch of a bar. */
export interface BarPart {
  readonly id: string
  /** How much it is, in the unit of the whole. */
  readonly n: number
  readonly colour: string
  readonly image?: string
  readonly size?: string
}

interface Props {
  parts: readonly BarPart[]
  /** How much the whole bar is; what the parts leave stays empty. */
  whole: number
  /** What the bar shows, in words, for those who do not see it. */
  words: string
}

/** Parts of a whole as stretches of one bar. */
export function StackBar({ parts, whole, words }: Props) {
  return (
    <Flex h="2.5" borderRadius="md" overflow="hidden" bg="bandNone" role="img" aria-label={words}>
      {parts
        .filter(part => part.n > 0 && whole > 0)
        .map(part => (
          <Box
            key={part.id}
            bgColor={part.colour}
            css={{ backgroundImage: part.image, backgroundSize: part.size }}
            style={{ width: `${(100 * part.n) / whole}%` }}
          />
        ))}
    </Flex>
  )
}
