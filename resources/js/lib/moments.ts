const day = { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' } as const;
const thisYear = new Intl.DateTimeFormat('en-GB', day);
const anyYear = new Intl.DateTimeFormat('en-GB', { ...day, year: 'numeric' });
const second = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });

/** Day and time of the person's own clock, of 24 hours: “26 Nov, 14:05”; of another year with the year. */
export function moment(at: string, now = new Date()): string {
  const then = new Date(at);
  return (then.getFullYear() === now.getFullYear() ? thisYear : anyYear).format(then);
}

/** The time alone, to the second: “14:05:09”. */
export const clock = (at: string): string => second.format(new Date(at));
