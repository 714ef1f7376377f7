import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { count } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { Button } from '../../../shared/ui/Button'
import { Kbd } from '../../../shared/ui/Kbd'
import { TextField } from '../../../shared/ui/TextField'
import type { TriedRule } from '../api/rules'
import { useAttributes } from '../api/rules'
import type { RuleNode } from '../model/ruleTree'
import { added, clause, fromLine, group, print, replaced, rows } from '../model/ruleTree'
import { ClauseRow } from './ClauseRow'

interface Props {
  rule: string
  /** What the rule comes to, as far as it is known, and of which text. */
  tried: TriedRule | undefined
  triedText: string
  onChange: (rule: string) => void
}

/** A rule as clauses and as text, always the same: whichever is edited, the other follows. */
export function RuleEditor({ rule, tried, triedText, onChange }: Props) {
  const attributes = useAttributes().data ?? []
  // What is edited in clauses is held here: while a value is still empty the text cannot be read.
  const [edited, setEdited] = useState<{ text: string; tree: RuleNode } | undefined>(undefined)
  const read = triedText === rule ? tried?.outline : undefined
  const tree =
    edited?.text === rule ? edited.tree : read === undefined ? (edited?.tree ?? group('all', [])) : fromLine(read)
  const [shown, setShown] = useState(tree)
  const known = edited?.text === rule || read !== undefined || rule === ''
  const current = known ? (rule === '' && edited?.text !== rule ? group('all', []) : tree) : shown
  if (known && current !== shown && JSON.stringify(current) !== JSON.stringify(shown)) {
    setShown(current)
  }
  const change = (next: RuleNode) => {
    const text = print(next, attributes)
    setEdited({ text, tree: next })
    onChange(text)
  }
  const add = (node: RuleNode, path: readonly number[] = []) => change(added(current, path, node))
  const first = clause('arch', 'eq', '')
  useKeys('The rule', [{ key: 'a', says: 'Add a clause', act: () => add(first) }])
  const lines = rows(current, read)
  const problem = triedText === rule ? tried?.problem : undefined
  const unfinished = lines.some(row => !row.heads && isUnfinished(row.node))
  return (
    <Box>
      <Flex justify="space-between" color="ink2" textStyle="second" mb="1">
        <Box>
          {lines.length === 0
            ? 'No clause yet: only devices picked by hand are in it.'
            : 'Devices where all of these hold'}
        </Box>
        <Box>{tried !== undefined && `devices left after each clause, of ${count(tried.fleet)}`}</Box>
      </Flex>
      <Box as="ul" listStyleType="none" aria-label="Clauses">
        {lines.map(row => (
          <ClauseRow
            key={row.path.join('.')}
            row={row}
            attributes={attributes}
            fleet={tried?.fleet ?? 0}
            onChange={node => change(replaced(current, row.path, node))}
            onAdd={() => add(first, row.path)}
          />
        ))}
      </Box>
      <Flex gap="2" mt="2.5" wrap="wrap">
        <Button onClick={() => add(first)}>
          Add a clause <Kbd>A</Kbd>
        </Button>
        <Button onClick={() => add(group('any', [first]))}>Any of…</Button>
        <Button onClick={() => add(group('none', [first]))}>None of…</Button>
      </Flex>
      <Box mt="3">
        <TextField
          label="The same as text"
          mono
          rows={3}
          value={rule}
          onChange={text => {
            setEdited(undefined)
            onChange(text)
          }}
          problem={
            problem === undefined || (unfinished && edited !== undefined)
              ? undefined
              : `${tried?.line === undefined ? '' : `Line ${tried.line}, column ${tried.column ?? 1}: `}${problem}`
          }
          {...(unfinished && edited !== undefined && { hint: 'A value is still missing above.' })}
        />
      </Box>
    </Box>
  )
}

function isUnfinished(node: RuleNode): boolean {
  return node.parts.length === 0
    ? node.kind === 'clause' && node.operator !== 'pr' && node.value === ''
    : node.parts.some(isUnfinished)
}
