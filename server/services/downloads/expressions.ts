import { sql, type SQL } from 'drizzle-orm'
import { DIMENSIONS, type Dimension } from '../../../core/tally/particulars'
import { downloads } from '../../db/schema'

/** What a download is by each dimension, as text; empty where that is not known. */
const KEY: Record<Dimension, SQL> = {
  file: sql`${downloads.fileId}`,
  edition: sql`${downloads.edition}::text`,
  placement: sql`coalesce(${downloads.placement}, '')`,
  page: sql`${downloads.page}`,
  signpost: sql`${downloads.signpost}`,
  campaign: sql`${downloads.campaign}`,
  referrer: sql`${downloads.referrer}`,
  country: sql`${downloads.country}`,
  device: sql`${downloads.device}`,
  browser: sql`${downloads.browser}`,
  system: sql`${downloads.system}`,
  language: sql`${downloads.language}`,
  course: sql`${downloads.course}`,
  person: sql`${downloads.person}`,
  link: sql`${downloads.link}`,
  source: sql`${downloads.source}`,
}

/** All of them, in the order of `DIMENSIONS`. */
export const KEYS = sql.join(
  DIMENSIONS.map(dimension => KEY[dimension]),
  sql`, `,
)
