// The three forms a recipient accepts (RFC 9110, section 5.6.7). asctime carries no zone and means GMT.
const FORMS = [
  /^(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun), (\d{2}) ([A-Z][a-z]{2}) (\d{4}) (\d{2}:\d{2}:\d{2}) GMT$/,
  /^(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day, (\d{2})-([A-Z][a-z]{2})-(\d{2}) (\d{2}:\d{2}:\d{2}) GMT$/,
  /^(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun) ([A-Z][a-z]{2}) ([ \d]\d) (\d{2}:\d{2}:\d{2}) (\d{4})$/,
]

/** A two-digit year more than 50 years ahead is the past one with the same digits (RFC 9110, section 5.6.7). */
function fullYear(year: string, now: Date): number {
  const century = Math.floor(now.getUTCFullYear() / 100) * 100
  const guess = century + Number(year)
  return guess > now.getUTCFullYear() + 50 ? guess - 100 : guess
}

/** An HTTP-date in milliseconds since the epoch, or undefined where the text is not one. */
export function parseHttpDate(text: string, now = new Date()): number | undefined {
  const fix = FORMS[0]!.exec(text)
  const old = FORMS[1]!.exec(text)
  const asc = FORMS[2]!.exec(text)
  const rewritten = fix
    ? `${fix[1]} ${fix[2]} ${fix[3]} ${fix[4]} GMT`
    : old
      ? `${old[1]} ${old[2]} ${fullYear(old[3]!, now)} ${old[4]} GMT`
      : asc
        ? `${asc[2]!.trim()} ${asc[1]} ${asc[4]} ${asc[3]} GMT`
        : ''
  const value = Date.parse(rewritten)
  return Number.isNaN(value) ? undefined : value
}

/** A date in whole seconds, as HTTP-date carries it. */
export function wholeSeconds(date: Date): number {
  return Math.floor(date.getTime() / 1000) * 1000
}
