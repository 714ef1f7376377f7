import type { ReactNode } from 'react'
import { createContext, useCallback, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { takeAhead } from './typedAhead'

/** One key and what it does. Two letters with a space between are pressed one after the other. */
export interface KeyAct {
  readonly key: string
  readonly says: string
  readonly act: () => void
  /** Whether it works in a text field, too. */
  readonly whileTyping?: boolean
}

/** A group of keys, as the list of keys shows it. */
export interface KeyGroup {
  readonly name: string
  readonly acts: readonly KeyAct[]
}

type Add = (group: KeyGroup) => () => void

interface Keys {
  readonly groups: readonly KeyGroup[]
  /** Whether keys without Ctrl work (WCAG 2.1.4 wants them to be switched off by whoever speaks to a computer). */
  readonly singleKeys: boolean
  readonly setSingleKeys: (on: boolean) => void
}

const KeysContext = createContext<Keys>({
  groups: [],
  singleKeys: true,
  setSingleKeys: () => undefined,
})
/** Apart, so that whoever has keys is not drawn anew whenever others come or go. */
const AddContext = createContext<Add>(() => () => undefined)
const SEQUENCE_MS = 1200
const KEPT = 'rivo.single-keys'
/** Leads to where they are switched on again. */
const HELP = '?'

export function KeysProvider({ children }: { children: ReactNode }) {
  const [groups, setGroups] = useState<readonly KeyGroup[]>([])
  const [singleKeys, setOn] = useState(() => localStorage.getItem(KEPT) !== 'off')
  const current = useRef({ groups, singleKeys })
  // Before anything is painted: whoever sees the page can press its keys.
  useLayoutEffect(() => {
    current.current = { groups, singleKeys }
  }, [groups, singleKeys])
  useEffect(() => listen(() => current.current), [])
  const setSingleKeys = useCallback((on: boolean) => {
    localStorage.setItem(KEPT, on ? 'on' : 'off')
    setOn(on)
  }, [])
  const add = useCallback<Add>(group => {
    setGroups(before => [...before, group])
    return () => setGroups(before => before.filter(g => g !== group))
  }, [])
  const keys = useMemo<Keys>(() => ({ groups, singleKeys, setSingleKeys }), [groups, singleKeys, setSingleKeys])
  return (
    <AddContext.Provider value={add}>
      <KeysContext.Provider value={keys}>{children}</KeysContext.Provider>
    </AddContext.Provider>
  )
}

/** Makes keys work while whoever calls is on the screen. */
export function useKeys(name: string, acts: readonly KeyAct[]): void {
  const add = useContext(AddContext)
  const latest = useRef(acts)
  useEffect(() => {
    latest.current = acts
  })
  const shape = acts.map(act => `${act.key}\t${act.says}\t${act.whileTyping === true ? 'typing' : ''}`).join('\n')
  useLayoutEffect(() => {
    const steady = shape
      .split('\n')
      .filter(line => line !== '')
      .map((line, i) => {
        const [key = '', says = '', typing = ''] = line.split('\t')
        return { key, says, whileTyping: typing !== '', act: () => latest.current[i]?.act() }
      })
    return add({ name, acts: steady })
  }, [add, name, shape])
}

export function useKeyGroups(): readonly KeyGroup[] {
  return useContext(KeysContext).groups
}

export function useSingleKeys(): Pick<Keys, 'singleKeys' | 'setSingleKeys'> {
  return useContext(KeysContext)
}

function listen(now: () => Pick<Keys, 'groups' | 'singleKeys'>): () => void {
  let first = ''
  let firstAt = 0
  const pressed = (event: KeyboardEvent) => {
    const name = nameOf(event)
    if (event.defaultPrevented || takeAhead(event, isTyping(event.target)) || event.altKey) {
      return
    }
    const { groups, singleKeys } = now()
    const acts = groups
      .flatMap(group => group.acts)
      .filter(act => act.whileTyping === true || !isTyping(event.target))
      .filter(act => act.key === HELP || act.key.startsWith('ctrl+') || (singleKeys && !isAtControl(event.target)))
    const found = pressedAct(acts, event.timeStamp - firstAt < SEQUENCE_MS ? first : '', name)
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

/**
 * What a key does after another one; none when that one began something else.
 *
 * @param first the key before; empty where that was too long ago
 */
export function pressedAct(acts: readonly KeyAct[], first: string, name: string): KeyAct | undefined {
  const begun = first !== '' && acts.some(act => act.key.startsWith(`${first} `))
  return acts.findLast(act => act.key === (begun ? `${first} ${name}` : name))
}

function nameOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  return event.ctrlKey || event.metaKey ? `ctrl+${key}` : key
}

/**
 * Whether the focus is at something of its own, such as a button in the head: then a letter is no key of the page. It is one while the map or
 * a list has the focus, or nothing has it.
 */
function isAtControl(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement) || target === document.body || target.closest('[data-list]') !== null) {
    return false
  }
  return target.matches('a, button, input, select, textarea, [role=button], [role=combobox], [tabindex="0"]')
}

/** Whether the key goes into a text. The field of a window that is closing takes no more. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('[role="dialog"][data-state="closed"]') === null &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  )
}
