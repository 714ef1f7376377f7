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
  scope: 'device' as const,
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

describe('a search', () => {
  const described = [{ ...title('Brookmap', 'Fenwick', 'Maps'), id: 'bm-7', description: 'Draws Catchments' }]

  it('looks at the name, maker, category, description and id, in any case and with any room', () => {
    for (const words of ['brookMAP', 'fenwick', 'maps', '  catchments  draws ', 'BM-7', '']) {
      expect(grouped(described, words, 'maker').map(g => g.name)).toEqual(['Fenwick'])
    }
    expect(grouped(described, 'brook draws nothing', 'maker')).toEqual([])
  })
})

describe('groups', () => {
  it('are in the order of their names, each once, the nameless last', () => {
    const many = [title('B', 'Zest', ''), title('A', '', 'Maps'), title('C', 'Ash', 'Maps'), title('D', 'Mill', 'Art')]
    expect(grouped(many, '', 'maker').map(g => g.name)).toEqual(['Ash', 'Mill', 'Zest', ''])
    expect(grouped(many, '', 'category').map(g => [g.name, g.titles.map(t => t.name)])).toEqual([
      ['Art', ['D']],
      ['Maps', ['A', 'C']],
      ['', ['B']],
    ])
  })
})
