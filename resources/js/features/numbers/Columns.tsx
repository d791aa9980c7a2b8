import { Menu } from '@mantine/core';
import { many, num } from '../../lib/numbers';
import { MEANS, meansOf, type By, type Look, type NamingColumn, type Only } from './report';
import css from './numbers.module.css';

/** What the report's columns were taken for, in words that can be changed. */
export function Columns({
  look,
  only,
  onOnly,
  onTell,
  summed,
  onSum,
}: {
  look: Look;
  only: Only;
  onOnly: (only: Only) => void;
  onTell: (at: number, by: By | null) => void;
  summed: readonly number[] | null;
  onSum: (summed: readonly number[] | null) => void;
}) {
  const naming = new Set(look.columns.map((c) => c.at));
  const count = (of: 'several' | 'unknown') => look.columns.reduce((n, c) => n + c[of], 0);
  const isTold = (at: number) => summed?.includes(at) ?? false;
  const turned = (at: number) => (isTold(at) ? summed?.filter((s) => s !== at) : [...(summed ?? []), at]) ?? [];
  return (
    <section className={css.said} aria-label="what the columns say">
      {look.columns.map((column) => (
        <p key={column.at}>
          <b>{headed(look, column.at)}</b> holds <Meaning by={column.by} onTell={(by) => onTell(column.at, by)} />{' '}
          {of(column)}
        </p>
      ))}
      {look.columns.length === 0 && <p>No column holds numbers or names of anything that is known here.</p>}
      <p className={css.ways}>
        <Only is={only === 'all'} onClick={() => onOnly('all')}>
          {many(look.rows, 'row')} {look.isMore && 'looked at, there are more'}
        </Only>
        {(['several', 'unknown'] as const).map(
          (of) =>
            count(of) > 0 && (
              <Only key={of} is={only === of} onClick={() => onOnly(only === of ? 'all' : of)}>
                {num(count(of))} {of === 'several' ? 'can be several' : 'not known'}
              </Only>
            ),
        )}
        <span style={{ flex: 1 }} />
        <Menu position="bottom-end">
          <Menu.Target>
            <button type="button" className={css.link}>
              another column …
            </button>
          </Menu.Target>
          <Menu.Dropdown className={css.choices}>
            {look.headings.map(
              (_, at) =>
                !naming.has(at) && (
                  <Menu.Item key={at} onClick={() => onTell(at, 'number')}>
                    {headed(look, at)}
                  </Menu.Item>
                ),
            )}
          </Menu.Dropdown>
        </Menu>
        <Only is={summed !== null} onClick={() => onSum(summed === null ? look.summed : null)}>
          renamed ones together
        </Only>
        {summed !== null &&
          look.amounts.map((at) => (
            <Only key={at} is={isTold(at)} onClick={() => onSum(turned(at))}>
              {isTold(at) ? '+' : ''} {headed(look, at)}
            </Only>
          ))}
      </p>
    </section>
  );
}

function Meaning({ by, onTell }: { by: By; onTell: (by: By | null) => void }) {
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <button type="button" className={css.word}>
          {meansOf(by)}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {MEANS.map(([means, title]) => (
          <Menu.Item key={title} onClick={() => onTell(means)}>
            {title}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function Only({ is, onClick, children }: { is: boolean; onClick: () => void; children: React.ReactNode }) {
  return (
    <button type="button" className={css.link} aria-pressed={is} onClick={onClick}>
      {children}
    </button>
  );
}

export const headed = (look: Look, at: number): string => look.headings[at] || `column ${at + 1}`;

const of = (column: NamingColumn): string =>
  [
    column.of ? `of ${column.of.account}, level ${column.of.level.toLowerCase()}` : 'of several accounts or levels',
    `${num(column.known)} known`,
    ...(column.several ? [`${num(column.several)} can be several`] : []),
    ...(column.unknown ? [`${num(column.unknown)} not known`] : []),
  ].join(' · ');
