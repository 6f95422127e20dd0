/** Days and times as people read them: each formatter is made once. */

import { locale } from "./language";

/** In English its reader's own where the browser has one, so 26 Nov or Nov 26. */
const OWN = new Intl.NumberFormat().resolvedOptions().locale;
const ENGLISH = OWN.startsWith("en") ? OWN : "en-US";

type Moment = string | Date;
type Said = (at: Moment) => string;

function said(how: Intl.DateTimeFormatOptions): Said {
  const made = new Map<string, Intl.DateTimeFormat>();
  return (at) => {
    const where = locale() || ENGLISH;
    const format = made.get(where) ?? new Intl.DateTimeFormat(where, how);
    made.set(where, format);
    return format.format(typeof at === "string" ? new Date(at) : at);
  };
}

const CLOCK = { hour: "2-digit", minute: "2-digit", hourCycle: "h23" } as const;

/** 14:05 */
export const clock = said(CLOCK);
/** Nov 26, 14:05 */
export const dayAndClock = said({ day: "numeric", month: "short", ...CLOCK });
/** Nov 26, 2026, 14:05 */
export const moment = said({ day: "numeric", month: "short", year: "numeric", ...CLOCK });
/** Nov 26, 2026 */
export const dayShort = said({ day: "numeric", month: "short", year: "numeric" });
/** Nov 26 */
export const dayOfYear = said({ day: "numeric", month: "short" });
/** November 26, 2026 */
export const dayLong = said({ day: "numeric", month: "long", year: "numeric" });
/** November 26 */
export const dayAndMonth = said({ day: "numeric", month: "long" });
/** November 2026 */
export const month = said({ month: "long", year: "numeric" });
/** Thu, Nov 26 */
export const weekdayShort = said({ weekday: "short", day: "numeric", month: "short" });
/** Thursday, November 26 */
export const weekday = said({ weekday: "long", day: "numeric", month: "long" });
/** Thursday, November 26, 2026 */
export const weekdayAndYear = said({
  weekday: "long",
  day: "numeric",
  month: "long",
  year: "numeric",
});
