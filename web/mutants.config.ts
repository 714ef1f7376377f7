import { defineConfig } from 'vitest/config'
import config from './vite.config'

/** What notices a planted fault: the tests of models and of shared code. Those of what is drawn take long, and come by most of them. */
export default defineConfig(environment => {
  const usual = config(environment)
  return { ...usual, test: { ...usual.test, include: ['src/**/*.test.ts', 'src/shared/*.test.tsx'] } }
})
