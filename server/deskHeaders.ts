/** What holds of the desk, its assets and its API alike (OWASP, HTTP security response headers). */
export const DESK_HEADERS = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'X-Frame-Options': 'SAMEORIGIN',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), microphone=(), geolocation=()',
  // The API's answers are no documents; the desk's page has a policy of its own.
  'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
}

/**
 * What the desk's page may load and run: its own scripts, and the few lines in its page that are known by their SHA-256.
 * Styles are set by script as the editor lays things out; pictures and sounds of files are shown as they are uploaded.
 *
 * @param scriptHashes Base64 SHA-256 of each script that stands in the page
 */
export const deskPolicy = (scriptHashes: string[]): string =>
  [
    "default-src 'none'",
    `script-src 'self' ${scriptHashes.map(hash => `'sha256-${hash}'`).join(' ')}`.trim(),
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "media-src 'self' blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "frame-src 'self' blob:",
    "worker-src 'self' blob:",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ].join('; ')
