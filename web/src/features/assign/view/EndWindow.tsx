import { Box } from '@chakra-ui/react'
import { Button } from '../../../shared/ui/Button'
import { Window } from '../../../shared/ui/Window'
import { WindowFoot } from '../../../shared/ui/WindowFoot'

interface Props {
  name: string
  busy: boolean
  trouble: string | undefined
  onEnd: (leaving: 'keep' | 'remove') => void
  onClose: () => void
}

/** Ends an assignment, and asks whether what it put on stays. */
export function EndWindow({ name, busy, trouble, onEnd, onClose }: Props) {
  return (
    <Window
      open
      onClose={onClose}
      heading={`End this assignment of ${name}`}
      width="520px"
      keepsNothing
      foot={
        <WindowFoot note="It goes into the draft." trouble={trouble} onCancel={onClose}>
          <Button size="lg" loading={busy} onClick={() => onEnd('remove')}>
            End, and remove it
          </Button>
          <Button size="lg" variant="chosen" loading={busy} onClick={() => onEnd('keep')}>
            End, and keep it
          </Button>
        </WindowFoot>
      }
    >
      <Box>
        From then on it decides for nobody. <b>Keep it</b> leaves {name} where this assignment installed it;{' '}
        <b>remove it</b> takes it off there, unless something else asks for it. The draft says for how many.
      </Box>
    </Window>
  )
}
