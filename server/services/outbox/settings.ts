import { eq } from 'drizzle-orm'
import { mailSettingsSchema, withPassword, type MailSettings } from '../../../core/outbox/mailSettings'
import type { Database } from '../../db/connection'
import { settings } from '../../db/schema'

const KEY = 'mail'

/** @param fixed the mail service that the environment gives; it goes before what is set at the desk */
export function createMailSettings(db: Database, fixed: string) {
  async function get(): Promise<MailSettings> {
    const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
    const saved = mailSettingsSchema.parse(row?.value ?? {})
    return fixed ? { ...saved, smtp: fixed } : saved
  }
  return {
    get,
    fixed: fixed !== '',

    async set(given: MailSettings): Promise<void> {
      const known = await get()
      const value = { ...given, smtp: withPassword(given.smtp, known.smtp) }
      await db.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } })
    },
  }
}
export type MailSettingsService = ReturnType<typeof createMailSettings>
