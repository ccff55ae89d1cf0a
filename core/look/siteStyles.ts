import { DEFAULT_FASHION, type Fashion, type SiteStyle } from './siteStyle'

interface NamedStyle {
  title: string
  /** what it is like, in a few words */
  hint: string
  style: Fashion
}

/** Styles that come finished, named after glazes: colours for light and dark screens, a pair of typefaces, a way with room. */
export const SITE_STYLES = {
  slip: { title: 'Slip', hint: 'Quiet and warm, for reading', style: DEFAULT_FASHION },
  shino: {
    title: 'Shino',
    hint: 'Soft and generous, with a glow',
    style: {
      palette: {
        paper: '#FFF9F2',
        ink: '#2B1D16',
        soft: '#6B5548',
        accent: '#A63F1B',
        accentDark: '#7A2B10',
        onAccent: '#FFFFFF',
        line: '#EAD9C8',
      },
      dark: {
        paper: '#211814',
        ink: '#F3E7DC',
        soft: '#C4AC9C',
        accent: '#F0976F',
        accentDark: '#F7B898',
        onAccent: '#2A120A',
        line: '#46362D',
      },
      type: { heading: 'fraunces', text: 'figtree' },
      scale: 'grand',
      corners: 'round',
      head: 'centred',
      rhythm: 'airy',
      shelves: 'boxed',
    },
  },
  celadon: {
    title: 'Celadon',
    hint: 'Cool and calm, much room',
    style: {
      palette: {
        paper: '#F4F7F3',
        ink: '#1D2622',
        soft: '#4F5D57',
        accent: '#2F6B4F',
        accentDark: '#1E4A36',
        onAccent: '#FFFFFF',
        line: '#CFDAD2',
      },
      dark: {
        paper: '#161C19',
        ink: '#E3ECE6',
        soft: '#A5B5AC',
        accent: '#86C7A3',
        accentDark: '#ABDCC0',
        onAccent: '#0C1F15',
        line: '#33403A',
      },
      type: { heading: 'lora', text: 'nunito' },
      scale: 'even',
      corners: 'soft',
      head: 'beside',
      rhythm: 'airy',
      shelves: 'ruled',
    },
  },
  tenmoku: {
    title: 'Tenmoku',
    hint: 'Dark and firm, square corners',
    style: {
      palette: {
        paper: '#FAF7F1',
        ink: '#17130F',
        soft: '#5A5148',
        accent: '#4A3018',
        accentDark: '#241709',
        onAccent: '#FFFFFF',
        line: '#D8CFC2',
      },
      dark: {
        paper: '#14110E',
        ink: '#F1EAE0',
        soft: '#B8AC9D',
        accent: '#D9B88A',
        accentDark: '#EACFA8',
        onAccent: '#1E150B',
        line: '#3B332B',
      },
      type: { heading: 'bitter', text: 'karla' },
      scale: 'grand',
      corners: 'square',
      head: 'band',
      rhythm: 'even',
      shelves: 'ruled',
    },
  },
  cobalt: {
    title: 'Cobalt',
    hint: 'Clear and close, for lists',
    style: {
      palette: {
        paper: '#FFFFFF',
        ink: '#141A2B',
        soft: '#515A70',
        accent: '#1F4FA8',
        accentDark: '#153775',
        onAccent: '#FFFFFF',
        line: '#D5DBE7',
      },
      dark: {
        paper: '#12161F',
        ink: '#E6EAF3',
        soft: '#A6B0C4',
        accent: '#8FB4F5',
        accentDark: '#B3CDFA',
        onAccent: '#0B1730',
        line: '#323A4A',
      },
      type: { heading: 'hanken', text: 'hanken' },
      scale: 'compact',
      corners: 'soft',
      head: 'beside',
      rhythm: 'tight',
      shelves: 'banded',
    },
  },
  raku: {
    title: 'Raku',
    hint: 'Charcoal and copper, upright headings',
    style: {
      palette: {
        paper: '#F6F5F3',
        ink: '#202022',
        soft: '#5A5A5E',
        accent: '#8A4B12',
        accentDark: '#5F320A',
        onAccent: '#FFFFFF',
        line: '#D9D7D3',
      },
      dark: {
        paper: '#1A1A1B',
        ink: '#EBEAE8',
        soft: '#B0AFAD',
        accent: '#E2A15B',
        accentDark: '#EEBE8A',
        onAccent: '#23150A',
        line: '#3C3C3E',
      },
      type: { heading: 'karla', text: 'literata' },
      scale: 'even',
      corners: 'square',
      head: 'centred',
      rhythm: 'even',
      shelves: 'boxed',
    },
  },
} as const satisfies Record<string, NamedStyle>
export type SiteStyleName = keyof typeof SITE_STYLES
export const SITE_STYLE_NAMES = Object.keys(SITE_STYLES) as [SiteStyleName, ...SiteStyleName[]]

/** A site as it would be in a finished style. */
export const dressedIn = (name: SiteStyleName, { paper, own }: SiteStyle): SiteStyle => ({ ...SITE_STYLES[name].style, own, paper })
