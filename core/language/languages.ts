import { z } from 'zod'

/** Languages a site can speak, each by its own name, with the locale its dates and numbers are written in. */
export const LANGUAGES = {
  en: { title: 'English', locale: 'en-GB' },
  de: { title: 'Deutsch', locale: 'de-DE' },
  fr: { title: 'Français', locale: 'fr-FR' },
  es: { title: 'Español', locale: 'es-ES' },
  it: { title: 'Italiano', locale: 'it-IT' },
  nl: { title: 'Nederlands', locale: 'nl-NL' },
  pl: { title: 'Polski', locale: 'pl-PL' },
  pt: { title: 'Português', locale: 'pt-PT' },
} as const
export type Language = keyof typeof LANGUAGES
export const LANGUAGE_CODES = Object.keys(LANGUAGES) as [Language, ...Language[]]
export const languageSchema = z.enum(LANGUAGE_CODES)
