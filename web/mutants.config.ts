import { defineConfig } from 'vitest/config'

/** What notices a planted fault: the tests of models and of shared code. Those of what is drawn take long, and come by most of them. */
export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'src/shared/*.test.tsx'],
    setupFiles: ['./src/testing/setUp.ts'],
    isolate: false,
    unstubGlobals: true,
  },
})
