import page from '../../../docs/words.md?raw'

/** A word that Rivo uses, and what it means. */
export interface Word {
  readonly word: string
  readonly meaning: string
}

/** The rows of the table on a page, without the marks around single words. */
export function wordsOf(markdown: string): readonly Word[] {
  return markdown
    .split('\n')
    .filter(line => line.startsWith('| '))
    .slice(1)
    .map(line => line.split('|').map(cell => cell.trim().replace(/[*`]/g, '')))
    .map(([, word = '', meaning = '']) => ({ word, meaning }))
}

/** All of them, as the documentation explains them. */
export const WORDS = wordsOf(page)

/** Those that are called so, or are explained by that. */
export function wordsWith(text: string): readonly Word[] {
  const wanted = text.trim().toLowerCase()
  const called = WORDS.filter(one => one.word.toLowerCase().includes(wanted))
  return [...called, ...WORDS.filter(one => !called.includes(one) && one.meaning.toLowerCase().includes(wanted))]
}
