import { Box } from '@chakra-ui/react'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'
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
        <WindowFoot
          trouble={accept.isError ? sentence(accept.error) : undefined}
          note="Accepted once for the organisation, in your name. A changed text has to be accepted again."
          onCancel={onClose}
        >
          <Button
            size="lg"
            variant="chosen"
            loading={accept.isPending}
            onClick={() => accept.mutate(record.about.licence, { onSuccess: onClose })}
          >
            Accept
          </Button>
        </WindowFoot>
      }
    >
      <Box whiteSpace="pre-wrap" overflowWrap="anywhere">
        {record.about.licence}
      </Box>
    </Window>
  )
}
