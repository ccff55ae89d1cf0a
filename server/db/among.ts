import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'

/**
 * Whether a text is one of some, however many: one parameter for all. As a list of their own they are an error where there are more than
 * 65,535 (PostgreSQL, Appendix K, query parameters), and slow long before.
 */
export const among = (column: SQLWrapper, texts: Iterable<string>): SQL => sql`${column} = any(${sql.param([...texts])}::text[])`
