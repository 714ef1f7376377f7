import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'

let folder = ''

const CROSSING = [
  ['features/fleet/view/A.tsx', "import { draw } from '../../reach/view/ReachMap'\nexport { draw }", 'Only the door'],
  ['features/fleet/view/B.tsx', "import { pages } from '../../reach/pages'\nexport { pages }", 'Only the door'],
  [
    'features/fleet/view/C.tsx',
    "import { system } from '../../../app/theme'\nexport { system }",
    'does not know the application',
  ],
  ['features/fleet/model/d.ts', "import { useState } from 'react'\nexport { useState }", 'plain TypeScript'],
  ['features/fleet/model/e.ts', "import { useEdit } from '../state/useEdit'\nexport { useEdit }", 'plain TypeScript'],
  ['shared/ui/F.tsx', "import { useDraft } from '../../features/draft'\nexport { useDraft }", 'knows neither'],
  ['features/fleet/view/G.tsx', 'export const g = <p fontSize="12.3px" />', 'fontSize comes from the theme'],
  ['features/fleet/view/H.tsx', "export const h = { px: '7px' }", 'px comes from the theme'],
  ['features/fleet/view/I.tsx', 'export const i = <p color="#17242b" />', 'Colours come from the theme'],
]

const KEEPING = [
  ['features/fleet/view/J.tsx', "import { useTitles } from '../../reach'\nexport { useTitles }"],
  ['app/router.tsx', "import { pages } from '../features/reach/pages'\nexport { pages }"],
  ['features/fleet/model/k.ts', "import { count } from '../../../shared/format'\nexport { count }"],
  ['features/fleet/view/L.tsx', 'export const l = <p textStyle="second" px="2" w="378px" href="#main" />'],
]

/** What the linter says of all of them, by their files. */
const said = new Map()

beforeAll(() => {
  folder = mkdtempSync(join(process.cwd(), 'target-lint-'))
  const config = join(folder, '.oxlintrc.json')
  const rules = { 'rivo/imports': 'error', 'rivo/looks': 'error' }
  writeFileSync(config, JSON.stringify({ jsPlugins: [join(process.cwd(), 'lint/borders.js')], rules }))
  for (const [file, text] of [...CROSSING, ...KEEPING]) {
    mkdirSync(dirname(join(folder, 'src', file)), { recursive: true })
    writeFileSync(join(folder, 'src', file), text)
  }
  const oxlint = join(process.cwd(), 'node_modules/.bin/oxlint')
  const { stdout } = spawnSync(oxlint, ['--format', 'json', '-c', config, join(folder, 'src')], { encoding: 'utf8' })
  for (const { code, filename, message } of JSON.parse(stdout).diagnostics) {
    if (code.startsWith('rivo')) {
      const file = filename.slice(filename.lastIndexOf('/src/') + '/src/'.length)
      said.set(file, [...(said.get(file) ?? []), message])
    }
  }
})

afterAll(() => rmSync(folder, { recursive: true }))

test.each(CROSSING)('a line in %s that crosses a border is told', (file, _, message) => {
  expect(said.get(file)).toEqual([expect.stringContaining(message)])
})

test.each(KEEPING)('a line in %s that keeps to them is not', file => {
  expect(said.get(file)).toBeUndefined()
})
