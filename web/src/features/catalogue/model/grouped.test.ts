import { describe, expect, it } from 'vitest'
import type { TitleLine } from '../api/catalogue'
import { grouped } from './grouped'

const title = (name: string, maker: string, category: string): TitleLine => ({
  id: name.toLowerCase(),
  name,
  maker,
  category,
  description: '',
  icon: '',
  releases: 1,
  devices: 0,
  needs: 0,
})

const titles = [
  title('Tarnlog', 'Tarnlog', 'Engineering'),
  title('Dosecalc', 'Quillbrook Water', 'Engineering'),
  title('Mudview', 'Sallow & Finch', ''),
]

describe('the list of titles', () => {
  it('is gathered by category, those without one last', () => {
    expect(grouped(titles, '', 'category').map(g => [g.name, g.titles.map(t => t.name)])).toEqual([
      ['Engineering', ['Dosecalc', 'Tarnlog']],
      ['', ['Mudview']],
    ])
  })

  it('keeps those that have every word', () => {
    expect(grouped(titles, 'water dose', 'maker').map(g => g.name)).toEqual(['Quillbrook Water'])
    expect(grouped(titles, 'water mud', 'maker')).toEqual([])
  })
})
