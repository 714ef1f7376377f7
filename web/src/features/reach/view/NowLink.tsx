import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { count } from '../../../shared/format'

interface Props {
  /** How many it would be with the draft, and how many it is now. */
  n: number
  now: number
  /** Where those are listed that it is now. */
  list: string
  title?: string
  /** The figure in words. */
  children: ReactNode
}

/** A figure of the draft. A list shows what is: it opens from the number that counts that. */
export function NowLink({ n, now, list, title, children }: Props) {
  return (
    <Flex align="baseline" gap="1.5" title={title} css={{ '& a:hover': { textDecoration: 'underline' } }}>
      {n === now ? (
        <Link to={list}>{children}</Link>
      ) : (
        <>
          {children}
          <Box color="ink3">
            (<Link to={list}>{count(now)} now</Link>)
          </Box>
        </>
      )}
    </Flex>
  )
}
