import { Box, Flex, Input } from '@chakra-ui/react'
import { Button } from '../../../shared/ui/Button'
import type { Choice, ReleaseRecord } from '../api/catalogue'
import type { Values } from '../model/choices'
import { chosen, costs, isMany, toggled, valueWords, withValue } from '../model/choices'
import { Select } from '../../../shared/ui/TextField'

interface Props {
  release: ReleaseRecord
  values: Values
  onChange: (values: Values) => void
}

/** The choices of a release, each as usual or fixed to a value. */
export function ChoiceFields({ release, values, onChange }: Props) {
  return (
    <>
      {release.choices.map(choice => {
        const fixed = values[choice.id]
        const name = choice.text === '' ? choice.id : choice.text
        return (
          <Box key={choice.id} role="group" aria-label={name} mb="2.5">
            <Flex align="baseline" gap="2" mb="1">
              <Box fontWeight="600" textStyle="compact">
                {name}
              </Box>
              {fixed === undefined ? (
                <Box color="ink2" textStyle="second">
                  default: {valueWords(choice, choice.usual)}
                </Box>
              ) : (
                <Button
                  variant="text"
                  size="xs"
                  textStyle="second"
                  onClick={() => onChange(withValue(values, choice.id, undefined))}
                >
                  use the default
                </Button>
              )}
            </Flex>
            <Field
              choice={choice}
              release={release}
              name={name}
              value={fixed ?? choice.usual}
              onChange={value => onChange(withValue(values, choice.id, value))}
            />
          </Box>
        )
      })}
    </>
  )
}

interface FieldProps {
  choice: Choice
  release: ReleaseRecord
  name: string
  value: string
  onChange: (value: string) => void
}

function Field({ choice, release, name, value, onChange }: FieldProps) {
  if (isMany(choice)) {
    const on = new Set(chosen(choice, value))
    return (
      <Flex gap="1.5" wrap="wrap">
        {choice.allowed.map(one => (
          <Button
            key={one.value}
            size="sm"
            px="2"
            textStyle="compact"
            fontWeight={on.has(one.value) ? '600' : '400'}
            variant={on.has(one.value) ? 'chosen' : 'plain'}
            aria-pressed={on.has(one.value)}
            onClick={() => onChange(toggled(choice, value, one.value))}
          >
            <span>
              {one.text === '' ? one.value : one.text}
              <Box as="span" color="ink2" fontWeight="400" textStyle="second">
                {costs(release, one) !== '' && ` ${costs(release, one)}`}
              </Box>
            </span>
          </Button>
        ))}
      </Flex>
    )
  }
  if (choice.kind === 'channel' || choice.kind === 'switch') {
    const options = choice.kind === 'switch' ? ['on', 'off'] : choice.allowed.map(a => a.value)
    return (
      <Select aria-label={name} value={value} onChange={event => onChange(event.target.value)}>
        {options.map(option => (
          <option key={option} value={option}>
            {valueWords(choice, option)}
          </option>
        ))}
      </Select>
    )
  }
  return (
    <Input
      aria-label={name}
      value={value}
      inputMode={choice.kind === 'number' ? 'numeric' : 'text'}
      w={choice.kind === 'number' ? '110px' : '100%'}
      h="32px"
      px="2"
      borderColor="line"
      onChange={event => onChange(event.target.value)}
    />
  )
}
