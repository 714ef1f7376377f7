// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { expect, test, vi } from 'vitest'
import { KeysProvider, useKeys } from './keys'
import { OPENING } from './typedAhead'

function Page({ act, shown }: { act: () => void; shown: 'nothing' | 'opening' | 'window' }) {
  const [text, setText] = useState('')
  useKeys('The page', [{ key: 'r', says: 'Require', act }])
  return shown === 'nothing' ? null : shown === 'opening' ? (
    <span hidden {...OPENING} />
  ) : (
    <input aria-label="Find" value={text} onChange={event => setText(event.target.value)} />
  )
}

function press(key: string) {
  window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
}

test('what is typed while a window is fetched goes into its field, and does nothing to the page', async () => {
  const act = vi.fn()
  const page = (shown: 'nothing' | 'opening' | 'window') => (
    <KeysProvider>
      <Page act={act} shown={shown} />
    </KeysProvider>
  )
  const { rerender } = render(page('nothing'))
  press('r')
  expect(act).toHaveBeenCalledTimes(1)
  rerender(page('opening'))
  press('c')
  press('r')
  rerender(page('window'))
  press('e')
  expect(act).toHaveBeenCalledTimes(1)
  screen.getByLabelText<HTMLInputElement>('Find').focus()
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Find').value).toBe('cre'))
})

test('Escape gives up what was typed, and the page has its keys again', () => {
  const act = vi.fn()
  const page = (shown: 'opening' | 'window' | 'nothing') => (
    <KeysProvider>
      <Page act={act} shown={shown} />
    </KeysProvider>
  )
  const { rerender } = render(page('opening'))
  press('c')
  rerender(page('nothing'))
  press('Escape')
  press('r')
  expect(act).toHaveBeenCalledTimes(1)
  rerender(page('window'))
  screen.getByLabelText<HTMLInputElement>('Find').focus()
  expect(screen.getByLabelText<HTMLInputElement>('Find').value).toBe('')
})
