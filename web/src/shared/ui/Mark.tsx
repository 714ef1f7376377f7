import { Flex } from '@chakra-ui/react'

/** The name, with three runs of water. */
export function Mark() {
  return (
    <Flex align="center" gap="2" textStyle="title" letterSpacing="-0.01em">
      <svg
        width="20"
        height="18"
        viewBox="0 0 20 18"
        fill="none"
        strokeWidth="2.4"
        strokeLinecap="round"
        aria-hidden="true"
      >
        <g stroke="var(--chakra-colors-mark)">
          <path d="M2 2c4 4 1 8 3 14" />
          <path d="M8 2c4 4 1 8 3 14" />
          <path d="M14 2c4 4 1 8 3 14" />
        </g>
      </svg>
      rivo
    </Flex>
  )
}
