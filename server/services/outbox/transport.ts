import type { MailSettings } from '../../../core/outbox/mailSettings'

export interface Outgoing {
  id: string
  to: string
  subject: string
  text: string
  html: string
  headers: Record<string, string>
  fromName: string
  /** of the site, for the identity of the message (RFC 5322, section 3.6.4) */
  host: string
}

/** Why a mail service did not take a message; `lasting`: it never will (RFC 5321, section 4.2.1: codes of 500 and more). */
export interface Refusal {
  words: string
  lasting: boolean
}

export interface Transport {
  send: (settings: MailSettings, message: Outgoing) => Promise<Refusal | undefined>
}

const PATIENCE = 30_000

/** Sends messages by SMTP (nodemailer). */
export const smtpTransport: Transport = {
  async send({ smtp, from }, { id, to, subject, text, html, headers, fromName, host }) {
    // Not at the start: most sites send nothing for a while.
    const { createTransport } = await import('nodemailer')
    const transport = createTransport(smtp, { connectionTimeout: PATIENCE, greetingTimeout: PATIENCE, socketTimeout: PATIENCE } as object)
    try {
      await transport.sendMail({
        from: { name: fromName, address: from || `no-reply@${host}` },
        // As an object: nothing in an address is taken for a second one.
        to: { name: '', address: to },
        subject,
        text,
        html,
        messageId: `<${id}@${host}>`,
        headers: { 'Auto-Submitted': 'auto-generated', ...headers },
        disableFileAccess: true,
        disableUrlAccess: true,
      })
      return undefined
    } catch (error) {
      const { responseCode, message } = error as Error & { responseCode?: number }
      return { words: message.slice(0, 500), lasting: (responseCode ?? 0) >= 500 }
    } finally {
      transport.close()
    }
  },
}
