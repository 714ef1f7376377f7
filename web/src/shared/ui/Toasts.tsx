import { lazy, Suspense, useSyncExternalStore } from 'react'

const load = () => import('./ToastList')
const ToastList = lazy(() => load().then(part => ({ default: part.ToastList })))

let wanted = false
let told: () => void = () => undefined

/** Says in passing that something has been done. What somebody must see is said where they look instead. */
export function say(words: string): void {
  wanted = true
  told()
  void load().then(part => part.show(words))
}

/** Where what is said in passing appears; once, around every shell. Fetched when there is something to say. */
export function Toasts() {
  const isWanted = useSyncExternalStore(
    listener => {
      told = listener
      return () => {
        told = () => undefined
      }
    },
    () => wanted,
  )
  return isWanted ? (
    <Suspense fallback={null}>
      <ToastList />
    </Suspense>
  ) : null
}
