import { Box, Flex } from '@chakra-ui/react'
import { bytes, count, fullInstant } from '../../../shared/format'
import { useNow } from '../../../shared/useNow'
import { Button } from '../../../shared/ui/Button'
import { Diamond } from '../../../shared/ui/Diamond'
import { Kbd } from '../../../shared/ui/Kbd'
import type { Tried } from '../api/assign'
import { stoppedBy, triedFigures } from '../model/figures'
import type { Sheet } from '../state/useSheet'

const SHAPES = {
  gains: 'required',
  offered: 'available',
  removes: 'uninstall',
  contested: 'contested',
  unfit: 'unfit',
  blocked: 'blocked',
  waiting: 'waiting',
  later: 'later',
} as const

const MINUTE_MS = 60_000

interface Props {
  sheet: Sheet
  tried: Tried | undefined
  /** What is still missing; nothing where it is whole. */
  missing: string | undefined
  /** Why it cannot be kept; nothing where it can. */
  trouble: string | undefined
  fresh: boolean
  keeping: boolean
  onList: (part: string) => void
  onKeep: () => void
  onCancel: () => void
  onEnd: (() => void) | undefined
}

/** What this edit alone would do, and the buttons. */
export function SheetFoot({ sheet, tried, missing, trouble, fresh, keeping, onList, onKeep, onCancel, onEnd }: Props) {
  const { assignment } = sheet.written
  const stopped = tried === undefined ? undefined : stoppedBy(tried)
  const nobody = tried !== undefined && fresh && tried.devices === 0 && (assignment.include ?? []).length > 0
  const now = useNow(MINUTE_MS)
  const begins = assignment.from !== undefined && Date.parse(assignment.from) > now ? assignment.from : undefined
  const hint = nobody
    ? 'Nobody is left: what is left out above takes everybody. '
    : begins === undefined
      ? ''
      : `It decides nothing before ${fullInstant(begins)}. `
  return (
    <Box
      as="section"
      aria-label="This edit"
      bg="paper"
      borderTopWidth="1px"
      borderColor="line"
      px="4.5"
      py="2.5"
      borderBottomRadius="lg"
    >
      {tried !== undefined && (
        <Flex gap="3.5" rowGap="1" wrap="wrap" align="center" opacity={fresh ? 1 : 0.55} aria-busy={!fresh} mb="1">
          <b>This edit</b>
          {triedFigures(tried, assignment.intent).map(figure => (
            <Flex key={figure.part} align="center" gap="1.5">
              {figure.part in SHAPES && <Diamond kind={SHAPES[figure.part as keyof typeof SHAPES]} size={12} />}
              <Button
                variant="text"
                size="xs"
                px="0"
                color={figure.warns && figure.n > 0 ? 'ochre' : 'ink'}
                fontWeight="400"
                textStyle="body"
                onClick={() => onList(figure.part)}
                disabled={figure.n === 0}
              >
                <b>{count(figure.n)}</b> {figure.words}
              </Button>
            </Flex>
          ))}
          {tried.bytes > 0 && (
            <Box>
              <b>{bytes(tried.bytes)}</b> to fetch
            </Box>
          )}
        </Flex>
      )}
      <Flex gap="2" align="center">
        <Box flex="1" minW="0" textStyle="second" color={trouble === undefined ? 'ink2' : 'trouble'} role="status">
          {trouble ?? missing ?? hint}
          {trouble === undefined && stopped !== undefined && stopped.n > 0 && (
            <>
              Behind fences ({stopped.names}){' '}
              <Button variant="text" size="inline" onClick={() => onList(stopped.parts[0] ?? 'served')}>
                {count(stopped.n)} get nothing of it
              </Button>
              .{' '}
              <Button variant="text" size="inline" onClick={() => sheet.change({ binding: true })}>
                make it binding
              </Button>
            </>
          )}
        </Box>
        {onEnd !== undefined && (
          <Button size="lg" onClick={onEnd}>
            End…
          </Button>
        )}
        <Button size="lg" onClick={onCancel}>
          Cancel <Kbd>Esc</Kbd>
        </Button>
        <Button
          size="lg"
          variant="honey"
          loading={keeping}
          disabled={trouble !== undefined || missing !== undefined}
          onClick={onKeep}
        >
          Keep in the draft <Kbd>Ctrl Enter</Kbd>
        </Button>
      </Flex>
    </Box>
  )
}
