import { Autocomplete, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import type { Schema } from '../../api/client';
import { Ribbon } from '../../components/Ribbon';
import { pathOf, withoutHost } from '../../components/withoutHost';
import { num } from '../../lib/numbers';
import { StepLine } from './StepLine';
import {
  comparedWith,
  comparisonOf,
  COMPARISONS,
  testOf,
  type Comparison,
  type Reads,
  type Rule,
  type Test,
} from './rules';
import css from './feeds.module.css';

type Column = Schema['FeedWhole']['columns'][number];

/** A rule as it is being written: which items, what is done, and beneath it three of those that it takes. */
export function RuleEditor({
  n,
  rule,
  reads,
  columns,
  takes,
  of,
  samples,
  onChange,
  onOut,
  onMove,
}: {
  n: number;
  rule: Rule;
  reads: Reads;
  columns: readonly Column[];
  takes: number | undefined;
  of: number | undefined;
  samples: readonly Schema['FeedSample'][];
  onChange?: ((rule: Rule) => void) | undefined;
  onOut: () => void;
  onMove: (by: number) => void;
}) {
  const tests = rule.when ?? [];
  const set = (some: Partial<Rule>) => onChange?.({ ...rule, ...some });
  const withTest = (i: number, test: Test) => set({ when: tests.map((t, k) => (k === i ? test : t)) });
  const only = rule.links?.length === 1 ? rule.links[0]! : '';
  return (
    <fieldset className={css.rule} disabled={!onChange} aria-label={`rule ${n + 1}${rule.title && `: ${rule.title}`}`}>
      <div className={css.head}>
        <span className={css.n}>{n + 1}</span>
        <TextInput
          variant="unstyled"
          size="xs"
          aria-label="what the rule is for"
          placeholder="what is it for?"
          value={rule.title}
          onChange={(e) => set({ title: e.target.value })}
        />
        <span className={css.takes}>
          {takes !== undefined && of !== undefined && (
            <>
              <i aria-hidden style={{ width: `${(100 * takes) / Math.max(1, of)}%` }} />
              takes {num(takes)} of {num(of)}
            </>
          )}
        </span>
        {onChange && (
          <span className={css.moves}>
            <button type="button" className={css.link} aria-label="earlier" onClick={() => onMove(-1)}>
              ↑
            </button>
            <button type="button" className={css.link} aria-label="later" onClick={() => onMove(1)}>
              ↓
            </button>
            <button type="button" className={css.link} aria-label="take the rule out" onClick={onOut}>
              ×
            </button>
          </span>
        )}
      </div>
      <div className={css.lines}>
        {tests.map((test, i) => {
          const how = comparisonOf(test);
          return (
            <div key={i} className={css.test}>
              <span className="quiet">{i === 0 ? 'where' : 'and'}</span>
              <Autocomplete
                size="xs"
                aria-label="column"
                data={columns.map((c) => c.name)}
                value={test.column}
                onChange={(column) => withTest(i, { ...test, column })}
              />
              <NativeSelect
                size="xs"
                aria-label="how it is compared"
                data={Object.entries(COMPARISONS).map(([value, label]) => ({ value, label }))}
                value={how}
                onChange={(e) =>
                  withTest(i, testOf(test.column, e.target.value as Comparison, comparedWith(test), test.exact))
                }
              />
              {how !== 'empty' && how !== 'filled' && (
                <TextInput
                  size="xs"
                  aria-label="with what"
                  placeholder={how === 'in' ? 'car | van' : ''}
                  classNames={{ input: 'mono' }}
                  value={comparedWith(test)}
                  onChange={(e) => withTest(i, testOf(test.column, how, e.target.value, test.exact))}
                />
              )}
              {onChange && (
                <button
                  type="button"
                  className={css.link}
                  aria-label="take the condition out"
                  onClick={() => set({ when: tests.filter((_, k) => k !== i) })}
                >
                  ×
                </button>
              )}
            </div>
          );
        })}
        {rule.do.map((step, i) => (
          <StepLine
            key={i}
            step={step}
            columns={columns}
            onChange={(next) => set({ do: rule.do.map((s, k) => (k === i ? next : s)) })}
            onOut={onChange && rule.do.length > 1 ? () => set({ do: rule.do.filter((_, k) => k !== i) }) : undefined}
          />
        ))}
        {onChange && (
          <div className={css.more}>
            <button
              type="button"
              className={css.link}
              onClick={() => set({ when: [...tests, { column: columns[0]?.name ?? '', in: [''] }] })}
            >
              only where …
            </button>
            <button
              type="button"
              className={css.link}
              onClick={() => set({ do: [...rule.do, { set: 'utm_medium', parts: [] }] })}
            >
              also …
            </button>
            {reads.links.length > 1 && (
              <NativeSelect
                size="xs"
                aria-label="which links it is about"
                data={[{ value: '', label: 'all links' }, ...reads.links.map((l) => l.column)]}
                value={only}
                onChange={(e) => {
                  const rest = { ...rule };
                  delete rest.links;
                  onChange(e.target.value === '' ? rest : { ...rest, links: [e.target.value] });
                }}
              />
            )}
            <Checkbox
              size="xs"
              label="no rule after it"
              checked={rule.last ?? false}
              onChange={(e) => set({ last: e.target.checked })}
            />
          </div>
        )}
      </div>
      {samples.length > 0 && (
        <ul className={css.samples} aria-label="some that it takes">
          {samples.map((sample) => (
            <li key={sample.id}>
              <span className="mono">{sample.id}</span>
              {sample.links
                .filter((l) => (only === '' || l.column === only) && l.after !== null)
                .slice(0, 1)
                .map((l) => (
                  <span key={l.column} className={css.beforeAfter}>
                    <small className="mono">{pathOf(l.before)}</small>
                    <Ribbon segments={withoutHost(l.after!)} compact />
                  </span>
                ))}
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  );
}
