import { Box, Flex } from '@chakra-ui/react'
import { X } from 'lucide-react'
import { count } from '../../../shared/format'
import { Button } from '../../../shared/ui/Button'
import { StackBar } from '../../../shared/ui/StackBar'
import { Select } from '../../../shared/ui/TextField'
import type { Attribute, EditorRow, RuleNode } from '../model/ruleTree'
import { COMPLEX, emptyClause, inner, operatorsOf, opposite, typeOf, withInner } from '../model/ruleTree'
import { ValueField } from './ValueField'

interface Props {
  row: EditorRow
  attributes: readonly Attribute[]
  fleet: number
  onChange: (node: RuleNode | undefined) => void
  onAdd: () => void
}

const GROUPS = { all: 'all of', any: 'any of', none: 'none of' } as const

/** One line of a rule: a clause, or how those below it go together; and how many devices are left after it. */
export function ClauseRow({ row, attributes, fleet, onChange, onAdd }: Props) {
  return (
    <Flex
      as="li"
      align="center"
      gap="1.5"
      minH="10"
      py="1"
      style={{ paddingLeft: row.depth * 22 }}
      borderTopWidth="1px"
      borderColor="line"
      wrap="wrap"
    >
      <Box w="28px" color="ink3" textStyle="second" textAlign="right">
        {row.joint}
      </Box>
      {row.heads ? (
        <GroupHead row={row} onChange={onChange} onAdd={onAdd} />
      ) : (
        <ClauseFields row={row} attributes={attributes} onChange={onChange} />
      )}
      <Button variant="text" size="xs" color="ink3" onClick={() => onChange(undefined)} aria-label="Delete this line">
        <X size={13} />
      </Button>
      <Box flex="1" />
      {row.devices !== undefined && (
        <Flex align="center" gap="2" w="118px" justify="flex-end">
          <Box fontWeight="700" whiteSpace="nowrap">
            {count(row.devices)}
            {row.joint === 'or' && (
              <Box as="span" fontWeight="400" color="ink2">
                {' '}
                more
              </Box>
            )}
          </Box>
          <Box w="56px">
            <StackBar
              whole={fleet}
              words={`${count(row.devices)} devices`}
              parts={[{ id: 'n', n: row.devices, colour: 'bandRequired' }]}
            />
          </Box>
        </Flex>
      )}
      {row.nearest !== undefined && (
        <Flex w="100%" pl="8" gap="1" color="ochre" textStyle="second" align="center">
          No device has this. Nearest:
          <Button
            variant="text"
            size="inline"
            onClick={() => onChange(withInner(row.node, { ...inner(row.node).clause, value: row.nearest ?? '' }))}
          >
            {row.nearest}
          </Button>
        </Flex>
      )}
    </Flex>
  )
}

function GroupHead({ row, onChange, onAdd }: { row: EditorRow; onChange: Props['onChange']; onAdd: () => void }) {
  const { kind } = row.node
  if (kind !== 'all' && kind !== 'any' && kind !== 'none') {
    return <b>{row.node.attribute} with</b>
  }
  return (
    <>
      <Select
        aria-label="How these go together"
        h="7"
        fontWeight="700"
        textStyle="compact"
        value={kind}
        onChange={event => {
          const chosen = event.target.value
          if (chosen === 'all' || chosen === 'any' || chosen === 'none') {
            onChange({ ...row.node, kind: chosen })
          }
        }}
      >
        {Object.entries(GROUPS).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </Select>
      <Button variant="text" size="xs" onClick={onAdd}>
        add to these
      </Button>
    </>
  )
}

function ClauseFields({ row, attributes, onChange }: Pick<Props, 'row' | 'attributes' | 'onChange'>) {
  const { clause, complex, negated } = inner(row.node)
  const within = complex === '' ? row.complex : complex
  const attribute = within === '' ? clause.attribute : `${within}.${clause.attribute}`
  const type = typeOf(attribute, attributes)
  const known = attributes.some(one => one.name.toLowerCase() === attribute.toLowerCase())
  const offered = row.complex === '' ? attributes : attributes.filter(one => one.name.startsWith(`${row.complex}.`))
  const about = (name: string) => {
    const next =
      row.complex === '' ? emptyClause(name, attributes) : emptyClause(name.slice(row.complex.length + 1), attributes)
    onChange(negated ? opposite(next) : next)
  }
  return (
    <>
      <Button
        size="sm"
        variant={negated ? 'chosen' : 'plain'}
        aria-pressed={negated}
        onClick={() => onChange(opposite(row.node))}
        title="Turns this line into its opposite"
      >
        not
      </Button>
      <Select
        aria-label="Attribute"
        h="7"
        maxW="124px"
        textStyle="compact"
        value={clause.kind === 'has' ? clause.attribute : attribute}
        onChange={event => about(event.target.value)}
      >
        {!known && <option value={clause.kind === 'has' ? clause.attribute : attribute}>{attribute}</option>}
        {offered.map(one => (
          <option key={one.name} value={one.name}>
            {one.name}
          </option>
        ))}
      </Select>
      {clause.kind === 'has' ? (
        <Box>is reported</Box>
      ) : (
        <>
          <Select
            aria-label="Operator"
            h="7"
            textStyle="compact"
            value={clause.operator}
            onChange={event => onChange(withInner(row.node, { ...clause, operator: event.target.value }))}
          >
            {operatorsOf(type, clause.operator).map(one => (
              <option key={one.word} value={one.word}>
                {one.reads}
              </option>
            ))}
          </Select>
          {clause.operator !== 'pr' && (
            <ValueField
              label={`Value of ${attribute}`}
              attribute={COMPLEX.includes(within) ? attribute : clause.attribute}
              type={type}
              value={clause.value}
              invalid={row.nearest !== undefined}
              onChange={value => onChange(withInner(row.node, { ...clause, value }))}
            />
          )}
        </>
      )}
    </>
  )
}
