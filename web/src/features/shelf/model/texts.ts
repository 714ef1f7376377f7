import de from '../texts/de.json'
import en from '../texts/en.json'

/** A text of the shelf. English has them all; another language is a file beside it with the same keys. */
export type TextKey = keyof typeof en
export type Texts = Readonly<Record<TextKey, string>>

/** The languages there are, by their codes (BCP 47). */
export const LANGUAGES: Readonly<Record<string, Texts>> = { en, de }

/** The first of these languages that there are texts in; English where there are none. `de-AT` is `de`. */
export function languageOf(wanted: readonly (string | null)[]): string {
  return wanted.map(one => one?.split('-')[0]?.toLowerCase() ?? '').find(one => one in LANGUAGES) ?? 'en'
}

/** A text with its values put in; what has no value stays as it is. */
export function filled(text: string, values: Readonly<Record<string, string | number>> = {}): string {
  return text.replaceAll(/\{(\w+)\}/g, (whole, name: string) => String(values[name] ?? whole))
}
