/** An instant as a field for local times shows it, by the clock of this computer: `2026-12-04T18:00`. */
export function atLocal(instant: string): string {
  const at = new Date(instant)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`
}

/** The instant of a local time of this computer. */
export function fromLocal(text: string): string {
  return new Date(text).toISOString()
}
