import { Box, Checkbox, Flex, Grid, Input } from '@chakra-ui/react'
import type { RefObject } from 'react'
import { Fragment, useRef, useState } from 'react'
import { Kbd } from '../shared/ui/Kbd'
import { useKeyGroups, useSingleKeys } from '../shared/keys'
import { Window } from '../shared/ui/Window'
import { wordsWith } from '../shared/words'

const KEYS: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
}

/** The keys that work where one is, and what the words on the screens mean. */
export function Help({ open, onClose }: { open: boolean; onClose: () => void }) {
  const field = useRef<HTMLInputElement>(null)
  return (
    <Window open={open} onClose={onClose} heading="Keys and words" width="880px" first={field} keepsNothing>
      <Grid templateColumns={{ base: '1fr', md: '280px 1fr' }} gap="8">
        <Keys />
        <Words field={field} />
      </Grid>
    </Window>
  )
}

function Keys() {
  const groups = useKeyGroups().filter(group => group.acts.length > 0)
  const { singleKeys, setSingleKeys } = useSingleKeys()
  return (
    <Box as="section" aria-label="Keys that work here">
      <Box as="h3" fontWeight="700" mb="2.5">
        Keys that work here
      </Box>
      <Checkbox.Root mb="3.5" checked={singleKeys} onCheckedChange={change => setSingleKeys(change.checked === true)}>
        <Checkbox.HiddenInput />
        <Checkbox.Control borderColor="ink3" _checked={{ bg: 'lagoon', borderColor: 'lagoon', color: 'panel' }} />
        <Checkbox.Label fontWeight="400">Single-letter keys</Checkbox.Label>
      </Checkbox.Root>
      {groups.map((group, i) => (
        <Box key={`${group.name} ${i}`} mb="3.5">
          <Box color="ink2" textStyle="second" mb="1">
            {group.name}
          </Box>
          {group.acts.map(act => (
            <Flex key={act.key} justify="space-between" gap="3" py="1">
              <span>{act.says}</span>
              <Kbd>{KEYS[act.key] ?? act.key.toUpperCase().replace('CTRL+', 'Ctrl ')}</Kbd>
            </Flex>
          ))}
        </Box>
      ))}
    </Box>
  )
}

function Words({ field }: { field: RefObject<HTMLInputElement | null> }) {
  const [text, setText] = useState('')
  const found = wordsWith(text)
  return (
    <Box as="section" aria-label="Words">
      <Flex align="baseline" gap="3" mb="2.5">
        <Box as="h3" fontWeight="700" flex="1">
          Words
        </Box>
        <Input
          ref={field}
          aria-label="Find a word"
          placeholder="Find a word"
          w="200px"
          h="28px"
          px="2"
          borderColor="line"
          value={text}
          onChange={event => setText(event.target.value)}
        />
      </Flex>
      {found.length === 0 && <Box color="ink2">No word matches.</Box>}
      <Grid as="dl" templateColumns="150px 1fr" rowGap="1.5" columnGap="4" maxH="52vh" overflowY="auto" tabIndex={0}>
        {found.map(one => (
          <Fragment key={one.word}>
            <Box as="dt" fontWeight="600">
              {one.word}
            </Box>
            <Box as="dd" color="ink2">
              {one.meaning}
            </Box>
          </Fragment>
        ))}
      </Grid>
    </Box>
  )
}
