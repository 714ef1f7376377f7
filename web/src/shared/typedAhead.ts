/** Stands for a window that is being fetched. */
export const OPENING = { 'data-opening': '' } as const

const AWAITED_MS = 3000

/** What has been typed for a window that is not there yet; nothing while none is awaited. */
let ahead: { text: string; until: number } | undefined

/**
 * Takes a key that is pressed while a window is being fetched: it is meant for that window's field, never for the page below. Whether it was
 * taken. Escape gives up what was typed.
 *
 * @param isTyping whether the key goes into a text already
 */
export function takeAhead(event: KeyboardEvent, isTyping: boolean): boolean {
  const opening = document.querySelector('[data-opening]') !== null
  if (opening && ahead === undefined) {
    ahead = { text: '', until: event.timeStamp + AWAITED_MS }
    document.addEventListener('focusin', give)
  }
  if (ahead !== undefined && !opening && (isTyping || event.timeStamp > ahead.until)) {
    giveUp()
  }
  if (ahead === undefined || isTyping || event.ctrlKey || event.metaKey || event.altKey) {
    return false
  }
  if (event.key === 'Escape') {
    giveUp()
    return false
  }
  if (event.key.length !== 1) {
    return false
  }
  ahead = { text: ahead.text + event.key, until: event.timeStamp + AWAITED_MS }
  event.preventDefault()
  return true
}

/** The first text field that gets the focus is the window's. */
function give(event: FocusEvent): void {
  const field = event.target
  if (ahead === undefined || !(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) {
    return
  }
  const { text } = ahead
  giveUp()
  if (text !== '') {
    // When whoever opened the window is done with it; as if it had been typed, so that the field's owner hears of it.
    requestAnimationFrame(() => {
      Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')?.set?.call(field, text + field.value)
      field.dispatchEvent(new Event('input', { bubbles: true }))
    })
  }
}

function giveUp(): void {
  ahead = undefined
  document.removeEventListener('focusin', give)
}
