import { afterEach } from 'vitest'

// Parts are drawn in a made-up document that has no layout: what asks for sizes is told that everything is of one size.
if (typeof document !== 'undefined') {
  const size = (height: number) => ({ configurable: true, get: () => height })
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', size(400))
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', size(800))
  Object.defineProperty(HTMLElement.prototype, 'clientHeight', size(400))
  window.CSS ??= { escape: (text: string) => text.replaceAll(/[^\w-]/g, one => `\\${one}`) } as typeof CSS
  window.PointerEvent ??= class extends MouseEvent {} as typeof PointerEvent
  window.HTMLElement.prototype.scrollTo = () => undefined
  window.HTMLElement.prototype.scrollIntoView = () => undefined
  window.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  }
  const { cleanup, configure } = await import('@testing-library/react')
  // What is waited for comes late where the machine has much to do besides.
  configure({ asyncUtilTimeout: 5_000 })
  afterEach(() => {
    cleanup()
    window.localStorage.clear()
    window.history.replaceState(null, '', '/')
  })
}
