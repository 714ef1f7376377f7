import { chakra, Flex } from '@chakra-ui/react'

const HUES = [190, 160, 42, 340, 260, 20, 100, 220] as const

/** The picture of a title; without one a drawn sign: its first letters on a colour of its own, always the same. */
export function TitleIcon({ name, icon, size }: { name: string; icon: string; size: number }) {
  if (icon !== '') {
    return (
      <chakra.img
        src={`/api/icons/${encodeURIComponent(icon)}`}
        alt=""
        flexShrink="0"
        objectFit="contain"
        style={{ width: size, height: size }}
      />
    )
  }
  const hue = HUES[[...name].reduce((sum, c) => sum + (c.codePointAt(0) ?? 0), 0) % HUES.length] ?? 190
  const words = name.split(/\s+/).filter(word => word !== '')
  const letters = words.length > 1 ? `${words[0]?.[0] ?? ''}${words[1]?.[0] ?? ''}` : name.slice(0, 2)
  return (
    <Flex
      aria-hidden="true"
      align="center"
      justify="center"
      flexShrink="0"
      borderRadius={`${Math.round(size / 5)}px`}
      fontWeight="700"
      style={{
        width: size,
        height: size,
        fontSize: Math.round(size / 2.6),
        background: `hsl(${hue} 30% 86%)`,
        color: `hsl(${hue} 60% 22%)`,
      }}
    >
      {letters.toUpperCase()}
    </Flex>
  )
}
