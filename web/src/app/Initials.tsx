import type { ComponentProps } from 'react'
import { Button } from '../shared/ui/Button'

type Props = { name: string } & ComponentProps<typeof Button>

/** Who is signed in, as a button. */
export function Initials({ name, ...rest }: Props) {
  return (
    <Button
      aria-label={`${name}: settings`}
      w="7"
      size="sm"
      p="0"
      borderRadius="full"
      variant="chosen"
      textStyle="code"
      {...rest}
    >
      {initials(name)}
    </Button>
  )
}

function initials(name: string): string {
  return name
    .split(/\s+/)
    .map(part => part.charAt(0).toUpperCase())
    .slice(0, 2)
    .join('')
}
