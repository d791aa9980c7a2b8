/** Why something of a file is left out. */
export const LEFT_OUT: Record<string, string> = {
  'no-page': 'no pages',
  program: 'by programs that say what they are',
  unreadable: 'not readable',
  'foreign-address': 'of other hosts',
  ahead: 'of days to come',
  'too-old': 'older than what is kept',
  'too-late': 'of too long ago to count',
  'no-order': 'without an order number',
  'no-time': 'without a time that can be read',
  'two-days': 'whose day could be two',
  'no-value': 'whose value is no number',
  'no-currency': 'whose currency is none',
  'huge-value': 'with too large a value',
};
