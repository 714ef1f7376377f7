import { defineConfig } from 'vitest/config'

/** What notices a planted fault in a model: the models' own tests. Those of what is drawn take long, and come by most of them. */
export default defineConfig({
  test: {
    include: ['src/**/*.test.ts'],
    setupFiles: ['./src/testing/setUp.ts'],
    isolate: false,
    unstubGlobals: true,
  },
})
