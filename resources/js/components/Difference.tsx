import css from './difference.module.css';

/** A text before and after on two lines, with the stretch that changes set off in both. */
export function Difference({ before, after }: { before: string | null; after: string | null }) {
  const { head, was, is, tail } = parts(before ?? '', after ?? '');
  return (
    <span className={css.difference}>
      <span className={css.was}>
        {before === null ? <i>nothing</i> : <Line head={head} middle={was} tail={tail} kind={css.gone!} />}
      </span>
      <span>{after === null ? <i>nothing</i> : <Line head={head} middle={is} tail={tail} kind={css.come!} />}</span>
    </span>
  );
}

function Line({ head, middle, tail, kind }: { head: string; middle: string; tail: string; kind: string }) {
  return (
    <>
      {head}
      {middle !== '' && <mark className={kind}>{middle}</mark>}
      {tail}
    </>
  );
}

/**
 * What two texts begin and end with alike, and what each has between. Cut at the marks of a query, so that whole
 * pairs are set off.
 */
export function parts(before: string, after: string): { head: string; was: string; is: string; tail: string } {
  let from = 0;
  while (from < before.length && from < after.length && before[from] === after[from]) from++;
  let to = 0;
  while (
    to < before.length - from &&
    to < after.length - from &&
    before[before.length - 1 - to] === after[after.length - 1 - to]
  )
    to++;
  const ends = (c: string | undefined) => c === undefined || /[?&#]/.test(c);
  const whole = ends(before[from]) && ends(after[from]);
  while (!whole && from > 0 && !/[?&#=/]/.test(before[from - 1]!)) from--;
  const begins = () =>
    ends(before[before.length - to]) || (ends(before[before.length - to - 1]) && ends(after[after.length - to - 1]));
  while (to > 0 && !begins()) to--;
  return {
    head: before.slice(0, from),
    was: before.slice(from, before.length - to),
    is: after.slice(from, after.length - to),
    tail: before.slice(before.length - to),
  };
}
