import { expect, test } from 'vitest'
import { browserName } from './browserName'

const CHROME = 'AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0.0.0 Safari/537.36'

test.each([
  [`Mozilla/5.0 (Windows NT 10.0; Win64; x64) ${CHROME} Edg/150.0.0.0`, 'Edge on Windows'],
  [`Mozilla/5.0 (X11; Linux x86_64) ${CHROME}`, 'Chromium on Linux'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 14.5; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on macOS'],
  [`Mozilla/5.0 (Linux; Android 15) ${CHROME}`, 'Chromium on Android'],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605 Version/18.0 Mobile Safari/604.1',
    'Safari on iOS',
  ],
  ['Firefox/1', 'Firefox'],
  ['curl/8.5', 'curl/8.5'],
  ['', 'A program that does not say what it is'],
])('%s is called %s', (said, called) => {
  expect(browserName(said)).toBe(called)
})

test('what is very long is cut', () => {
  expect(browserName('x'.repeat(200))).toHaveLength(60)
})
