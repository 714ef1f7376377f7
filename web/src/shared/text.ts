/** Whether each word of what was typed stands in one of the texts, small or large letters alike. Nothing typed stands in everything. */
export function hasWords(typed: string, ...texts: readonly (string | undefined)[]): boolean {
  const whole = texts.join(' ').toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every(word => whole.includes(word))
}
