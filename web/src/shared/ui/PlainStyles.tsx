import type { SystemStyleObject } from '@chakra-ui/react'
import { useChakraContext } from '@chakra-ui/react'
import { Global } from '@emotion/react'
import { memo } from 'react'

interface Props {
  /** The class name of the element that they stand in. */
  within: string
  /** The very same at every drawing. */
  styles: SystemStyleObject
}

/**
 * How many plain elements with class names look, where there are hundreds of them that are drawn anew while one scrolls or walks: worked out
 * once, and not at each drawing of what they stand in.
 */
export const PlainStyles = memo(function PlainStyles({ within, styles }: Props) {
  const { css } = useChakraContext()
  return <Global styles={{ [`.${within}`]: css(styles) }} />
})
