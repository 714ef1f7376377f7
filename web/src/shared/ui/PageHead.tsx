import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useEffect } from 'react'

interface Props {
  heading: string
  /** What stands beside the heading: a search, figures, buttons. */
  children?: ReactNode
}

/** The first line of a page: what it is about, and what one does with all of it. */
export function PageHead({ heading, children }: Props) {
  usePageTitle(heading)
  return (
    <Flex align="center" gap="4" minH="9" wrap="wrap">
      <PageHeading>{heading}</PageHeading>
      {children}
    </Flex>
  )
}

/** The heading of a page. The focus goes to it when one has come to the page by a link that is not there any more. */
export function PageHeading({ children }: { children: ReactNode }) {
  return (
    <Box as="h1" textStyle="title" tabIndex={-1} outline="none" minW="0" truncate>
      {children}
    </Box>
  )
}

/** What the browser's tab is called. Nothing while it is not known. */
export function usePageTitle(title: string | undefined): void {
  useEffect(() => {
    if (title !== undefined) {
      document.title = `${title} · Rivo`
    }
  }, [title])
}
