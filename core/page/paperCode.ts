import QRCode from 'qrcode'
import { escapeHtml } from './escape'

/** Modules of nothing around the picture (ISO/IEC 18004, quiet zone). */
const QUIET = 4

/** A picture that phones read an address from, with the address; for paper alone. */
export function codeHtml(address: string): string {
  const { size, data } = QRCode.create(address, { errorCorrectionLevel: 'M' }).modules
  let path = ''
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) if (data[y * size + x]) path += `M${x + QUIET} ${y + QUIET}h1v1h-1z`
  const side = size + 2 * QUIET
  return `\n<p class="tr-code" aria-hidden="true"><svg viewBox="0 0 ${side} ${side}" width="120" height="120" shape-rendering="crispEdges"><path d="${path}"/></svg>${escapeHtml(address)}</p>`
}
