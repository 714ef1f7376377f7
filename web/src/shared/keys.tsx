import type { ReactNode } from 'react'
import { createContext, useCallback, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'

/** One key and what it does. Two letters with a space between are pressed one after the other. */
export interface KeyAct {
  readonly key: string
  readonly says: string
  readonly act: () => void
}

/** A group of keys, as the list of keys shows it. */
export interface KeyGroup {
  readonly name: string
  readonly acts: readonly KeyAct[]
}

interface Keys {
  readonly groups: readonly KeyGroup[]
  readonly add: (group: KeyGroup) => () => void
}

const KeysContext = createContext<Keys>({ groups: [], add: () => () => undefined })
const SEQUENCE_MS = 1200

export function KeysProvider({ children }: { children: ReactNode }) {
  const [groups, setGroups] = useState<readonly KeyGroup[]>([])
  const current = useRef(groups)
  // Before anything is painted: whoever sees the page can press its keys.
  useLayoutEffect(() => {
    current.current = groups
  }, [groups])
  useEffect(() => listen(() => current.current), [])
  const add = useCallback((group: KeyGroup) => {
    setGroups(before => [...before, group])
    return () => setGroups(before => before.filter(g => g !== group))
  }, [])
  const keys = useMemo<Keys>(() => ({ groups, add }), [groups, add])
  return <KeysContext.Provider value={keys}>{children}</KeysContext.Provider>
}

/** Makes keys work while whoever calls is on the screen. */
export function useKeys(name: string, acts: readonly KeyAct[]): void {
  const { add } = useContext(KeysContext)
  const latest = useRef(acts)
  useEffect(() => {
    latest.current = acts
  })
  const shape = acts.map(act => `${act.key}\t${act.says}`).join('\n')
  useLayoutEffect(() => {
    const steady = shape
      .split('\n')
      .filter(line => line !== '')
      .map((line, i) => {
        const [key = '', says = ''] = line.split('\t')
        return { key, says, act: () => latest.current[i]?.act() }
      })
    return add({ name, acts: steady })
  }, [add, name, shape])
}

export function useKeyGroups(): readonly KeyGroup[] {
  return useContext(KeysContext).groups
}

function listen(groups: () => readonly KeyGroup[]): () => void {
  let first = ''
  let firstAt = 0
  const pressed = (event: KeyboardEvent) => {
    const name = nameOf(event)
    if (event.defaultPrevented || event.altKey || (isTyping(event.target) && !name.startsWith('ctrl+'))) {
      return
    }
    const sequence = event.timeStamp - firstAt < SEQUENCE_MS ? `${first} ${name}` : name
    const acts = groups().flatMap(group => group.acts)
    const found = acts.findLast(act => act.key === sequence) ?? acts.findLast(act => act.key === name)
    if (found !== undefined && document.querySelector('[role="dialog"][data-state="open"]') === null) {
      event.preventDefault()
      first = ''
      found.act()
      return
    }
    first = name
    firstAt = event.timeStamp
  }
  window.addEventListener('keydown', pressed)
  return () => window.removeEventListener('keydown', pressed)
}

function nameOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  return event.ctrlKey || event.metaKey ? `ctrl+${key}` : key
}

/** Whether the key goes into a text. The field of a window that is closing takes no more. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('[role="dialog"][data-state="closed"]') === null &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  )
}
