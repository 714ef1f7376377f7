import { createContext, useContext, useEffect, useMemo, useState } from 'react'
import type { TextKey, Texts } from '../model/texts'
import { filled, LANGUAGES, languageOf } from '../model/texts'
import en from '../texts/en.json'

/** Says a text in the language of whoever looks. */
export interface Speaker {
  readonly language: string
  readonly say: (key: TextKey, values?: Readonly<Record<string, string | number>>) => string
  /** A day, with the time where it matters. */
  readonly day: (instant: string, withTime?: boolean) => string
  /** The time of day. */
  readonly time: (instant: string) => string
  readonly choose: (language: string) => void
}

const KEY = 'rivo.shelf.language'

export const SpeakerContext = createContext<Speaker | undefined>(undefined)

export function useSpeaker(): Speaker {
  const speaker = useContext(SpeakerContext)
  if (speaker === undefined) {
    throw new Error('nobody speaks here')
  }
  return speaker
}

/** In the language that was chosen in this browser, else in the first of the browser's that there is. */
export function useNewSpeaker(): Speaker {
  const [language, setLanguage] = useState(() => languageOf([window.localStorage.getItem(KEY), ...navigator.languages]))
  useEffect(() => {
    const before = document.documentElement.lang
    document.documentElement.lang = language
    return () => {
      document.documentElement.lang = before
    }
  }, [language])
  return useMemo(() => {
    const texts: Texts = LANGUAGES[language] ?? en
    // Days before months, and hours up to 24, as on every other page.
    const forms = language === 'en' ? 'en-GB' : language
    return {
      language,
      say: (key, values) => filled(texts[key], values),
      day: (instant, withTime = false) =>
        new Date(instant).toLocaleString(forms, {
          day: 'numeric',
          month: 'short',
          ...(withTime && { weekday: 'short', hour: '2-digit', minute: '2-digit' }),
        }),
      time: instant => new Date(instant).toLocaleTimeString(forms, { hour: '2-digit', minute: '2-digit' }),
      choose: chosen => {
        window.localStorage.setItem(KEY, chosen)
        setLanguage(chosen)
      },
    }
  }, [language])
}
