import type { Appearance } from '~~/core/look/appearance'
import { appearanceCss } from '~~/core/look/buttonCss'
import { escapeHtml } from '~~/core/page/escape'
import { buttonInner } from '~~/core/page/button'

/** CSS pixels that the text column of a page has at most (43rem), and on a phone 390 wide with its margins. */
export const ROOM = { desktop: 688, phone: 353 } as const

export interface Fit {
  /** width at which label and second line each stand on one line */
  oneLine: number
  /** width below which a word is broken */
  leastWidth: number
}

/** How wide a button has to be for its words, measured as this browser draws them in the site's fonts. */
export async function measureFit(appearance: Appearance, label: string, note: string): Promise<Fit> {
  const host = document.createElement('div')
  host.className = 'tr-page'
  host.style.cssText = 'position:absolute;visibility:hidden;width:max-content;container-type:normal'
  const inner = buttonInner({ label, note, locked: false, spoken: '' }, appearance)
  host.innerHTML = `<style>${appearanceCss('tr-measured', { ...appearance, width: 'fit' }, () => undefined)}.tr-page .tr-measured{max-width:none;overflow-wrap:normal}</style><span class="tr-button tr-measured">${inner}</span>`
  document.body.append(host)
  try {
    // The typeface alone: what stands in for it until it is there need not be on this computer.
    const [family] = getComputedStyle(host).fontFamily.split(',')
    await document.fonts.load(`${appearance.weight} ${appearance.size}px ${family}`, escapeHtml(label))
    const button = host.querySelector<HTMLElement>('.tr-measured')!
    const widthAs = (width: string) => {
      button.style.width = width
      return Math.ceil(button.getBoundingClientRect().width)
    }
    return { oneLine: widthAs('max-content'), leastWidth: widthAs('min-content') }
  } finally {
    host.remove()
  }
}
