import { Box, Flex } from '@chakra-ui/react'
import { Kbd } from './Kbd'
import { useKeyGroups } from './keys'
import { Window } from './Window'

const WORDS: Record<string, string> = {
  'ctrl+k': 'Ctrl K',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
}

/** Lists the keys that work where one is. */
export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const groups = useKeyGroups().filter(group => group.acts.length > 0)
  return (
    <Window open={open} onClose={onClose} heading="Keys that work here" width="460px">
      {groups.map((group, i) => (
        <Box key={`${group.name} ${i}`} mb="14px">
          <Box color="ink3" fontSize="12.3px" mb="4px">
            {group.name}
          </Box>
          {group.acts.map(act => (
            <Flex key={act.key} justify="space-between" py="3px">
              <span>{act.says}</span>
              <Kbd>{WORDS[act.key] ?? act.key.toUpperCase()}</Kbd>
            </Flex>
          ))}
        </Box>
      ))}
    </Window>
  )
}
