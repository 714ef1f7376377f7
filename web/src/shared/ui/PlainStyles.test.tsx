// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import { draw } from '../../testing/draw'
import { PlainStyles } from './PlainStyles'

const STYLES = {
  '& .one': { position: 'absolute', px: '2' },
  '& .one[data-far]': { top: '7px' },
  '&[data-list]': { top: '3px' },
}

test('the elements within look as is said, and those elsewhere do not', async () => {
  draw(
    <>
      <PlainStyles within="all" styles={STYLES} />
      <div className="all" data-list="" data-testid="all">
        <div className="one">near</div>
        <div className="one" data-far="">
          far
        </div>
      </div>
      <div className="one">elsewhere</div>
    </>,
  )
  const style = (of: HTMLElement) => window.getComputedStyle(of)
  expect(style(await screen.findByText('near')).position).toBe('absolute')
  expect(style(screen.getByText('near')).top).not.toBe('7px')
  expect(style(screen.getByText('far')).top).toBe('7px')
  expect(style(screen.getByText('elsewhere')).position).not.toBe('absolute')
  expect(style(screen.getByTestId('all')).top).toBe('3px')
})
