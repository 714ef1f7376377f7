import { Box, Flex } from '@chakra-ui/react'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { Window } from '../../../shared/ui/Window'
import type { TitleRecord } from '../api/catalogue'
import { useAccept } from '../api/rights'

/** The licence text, to be read and accepted once for the organisation. */
export function LicenceWindow({ record, onClose }: { record: TitleRecord; onClose: () => void }) {
  const accept = useAccept(record.id)
  return (
    <Window
      open
      onClose={onClose}
      heading={`The licence text of ${record.name}`}
      width="680px"
      foot={
        <Flex gap="2" align="center" w="100%">
          <Box flex="1" textStyle="compact" color={accept.isError ? 'trouble' : 'ink2'}>
            {accept.isError
              ? sentence(accept.error)
              : 'Accepted once for the organisation, in your name. A changed text has to be accepted again.'}
          </Box>
          <Button size="lg" onClick={onClose}>
            Cancel
          </Button>
          <Button
            size="lg"
            variant="chosen"
            loading={accept.isPending}
            onClick={() => accept.mutate(record.about.licence, { onSuccess: onClose })}
          >
            Accept
          </Button>
        </Flex>
      }
    >
      <Box whiteSpace="pre-wrap" overflowWrap="anywhere">
        {record.about.licence}
      </Box>
    </Window>
  )
}
