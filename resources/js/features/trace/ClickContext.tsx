import { Autocomplete, SegmentedControl, TextInput } from '@mantine/core';
import type { Schema } from '../../api/client';
import css from './trace.module.css';

interface Props {
  fields: Schema['Trace']['fields'];
  values: Readonly<Record<string, string>>;
  onChange: (field: string, value: string) => void;
}

const NAMES: Record<string, string> = {
  'keyword.text': 'keyword',
  'keyword.match': 'match',
  'product.id': 'product',
  'click.id': 'click ID',
  'click.random': 'random number',
};

/** The click: every field answers while it is typed. */
export function ClickContext({ fields, values, onChange }: Props) {
  return (
    <div className={css.context} role="group" aria-label="the click">
      <h2>The click</h2>
      {fields.map(({ field, values: listed, suggestions }) => {
        const name = NAMES[field] ?? field;
        const value = values[field] ?? '';
        if (listed.length > 0) {
          return (
            <div key={field} className={css.field}>
              <span className={css.label}>{name}</span>
              <SegmentedControl
                size="xs"
                aria-label={name}
                value={value}
                onChange={(v) => onChange(field, v)}
                data={[...listed]}
              />
            </div>
          );
        }
        const input = {
          size: 'xs' as const,
          label: name,
          value,
          classNames: { label: css.label, root: css.field, input: 'mono' },
          spellCheck: false,
        };
        return suggestions.length > 0 ? (
          <Autocomplete
            key={field}
            {...input}
            data={[...new Set(suggestions)]}
            filter={({ options }) => options}
            onChange={(v) => onChange(field, v)}
          />
        ) : (
          <TextInput key={field} {...input} onChange={(e) => onChange(field, e.target.value)} />
        );
      })}
    </div>
  );
}
