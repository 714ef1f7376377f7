import { Box, chakra, Flex, Input } from '@chakra-ui/react'
import type { KeyboardEvent } from 'react'
import { useId, useState } from 'react'
import { some } from '../../../shared/format'
import { hasWords } from '../../../shared/text'
import { useSettled } from '../../../shared/useSettled'
import { useValues } from '../api/rules'
import type { Attribute } from '../model/ruleTree'
import { valueReads } from '../model/ruleTree'

interface Props {
  label: string
  /** The attribute whose values are offered; of a complex one a part, such as `software.name`. */
  attribute: string
  type: Attribute['type']
  value: string
  invalid: boolean
  onChange: (value: string) => void
}

const Option = chakra('li')
const PAUSE_MS = 120

const HINTS: Partial<Record<Attribute['type'], string>> = { instant: '-P14D', version: '10.0.22000', number: '8' }

/** A value, with those that the fleet really has, and on how many devices. */
export function ValueField({ label, attribute, type, value, invalid, onChange }: Props) {
  const list = useId()
  const [open, setOpen] = useState(false)
  const [walked, setWalked] = useState(-1)
  const [typed, setTyped] = useState<string | undefined>(undefined)
  const shown = typed ?? valueReads(value, type)
  const found = useValues(attribute, useSettled(typed ?? '', PAUSE_MS), open && type !== 'instant')
  // What was found for fewer letters stands there for a moment: of that only what still matches.
  const values = open ? (found.data ?? []).filter(one => hasWords(typed ?? '', one.label, one.value)) : []
  const choose = (chosen: string) => {
    onChange(chosen)
    setTyped(undefined)
    setOpen(false)
    setWalked(-1)
  }
  const pressed = (event: KeyboardEvent) => {
    const walkedTo = values[walked]
    if (event.key === 'ArrowDown') {
      setOpen(true)
      setWalked(Math.min(values.length - 1, walked + 1))
    } else if (event.key === 'ArrowUp') {
      setWalked(Math.max(-1, walked - 1))
    } else if (event.key === 'Enter' && walkedTo !== undefined) {
      choose(walkedTo.value)
    } else if (event.key === 'Escape' && open) {
      setOpen(false)
    } else {
      return
    }
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <Box position="relative" w="138px">
      <Input
        role="combobox"
        aria-label={label}
        aria-expanded={values.length > 0}
        aria-controls={list}
        aria-invalid={invalid}
        {...(walked >= 0 && { 'aria-activedescendant': `${list}-${walked}` })}
        autoComplete="off"
        value={shown}
        placeholder={HINTS[type] ?? 'value'}
        onChange={event => {
          setTyped(event.target.value)
          setOpen(true)
          setWalked(-1)
          onChange(event.target.value)
        }}
        onFocus={() => setOpen(true)}
        onBlur={() => {
          setOpen(false)
          setTyped(undefined)
        }}
        onKeyDown={pressed}
        h="7"
        px="2"
        bg="panel"
        borderColor={invalid ? 'ochre' : 'line'}
        textStyle="compact"
      />
      {values.length > 0 && (
        <Box
          as="ul"
          id={list}
          role="listbox"
          aria-label={`Values of ${attribute}`}
          position="absolute"
          zIndex="dropdown"
          top="100%"
          left="0"
          mt="1"
          minW="260px"
          maxH="240px"
          overflowY="auto"
          bg="panel"
          borderWidth="1px"
          borderColor="line"
          borderRadius="md"
          boxShadow="md"
          listStyleType="none"
          p="1"
        >
          {values.map((one, i) => (
            <Option
              key={one.value}
              id={`${list}-${i}`}
              role="option"
              aria-selected={i === walked}
              // Before the field loses the focus, and with it the list.
              onMouseDown={event => {
                event.preventDefault()
                choose(one.value)
              }}
              px="2"
              py="1"
              borderRadius="sm"
              cursor="pointer"
              bg={i === walked ? 'lagoonSoft' : undefined}
              _hover={{ bg: 'hover' }}
            >
              <Flex gap="3" textStyle="compact">
                <Box flex="1" minW="0" truncate fontWeight="600">
                  {one.label}
                </Box>
                <Box color="ink2" whiteSpace="nowrap">
                  on {some(one.devices, 'device')}
                </Box>
              </Flex>
            </Option>
          ))}
        </Box>
      )}
    </Box>
  )
}
