import { Autocomplete, Menu, NativeSelect, TextInput } from '@mantine/core';
import { useRef } from 'react';
import type { Schema } from '../../api/client';
import { isInUse, type Words } from '../agree/words';
import { usePlan } from '../../lib/usePlan';
import { useAgreement } from '../agree/useAgreement';
import { keyOfStep, plainIn, stepKindOf, stepOf, STEPS, typedValue, type Step, type StepKind } from './rules';
import css from './feeds.module.css';

/** One thing that a rule does; keys of channels and plan and agreed words are offered, columns stand between angles. */
export function StepLine({
  step,
  columns,
  onChange,
  onOut,
}: {
  step: Step;
  columns: readonly Schema['FeedWhole']['columns'][number][];
  onChange: (step: Step) => void;
  onOut?: (() => void) | undefined;
}) {
  const field = useRef<HTMLInputElement>(null);
  const words = useAgreement<Words>('words').document?.keys ?? {};
  const channels = useAgreement<{ keys: Record<string, string> }>('channels').document?.keys ?? {};
  const plan = usePlan().data?.document;
  const planKeys = plan?.parameters.map((p) => p.key) ?? [];
  const kind = stepKindOf(step);
  const key = keyOfStep(step);
  const typed = typedValue(step);
  const insert = (text: string) => {
    const at = field.current?.selectionStart ?? typed.length;
    onChange(stepOf(kind, key, typed.slice(0, at) + text + typed.slice(at)));
    field.current?.focus();
  };
  return (
    <div className={css.step}>
      <NativeSelect
        size="xs"
        aria-label="what is done"
        data={Object.entries(STEPS).map(([value, label]) => ({ value, label }))}
        value={kind}
        onChange={(e) => onChange(stepOf(e.target.value as StepKind, key, typed))}
      />
      <Autocomplete
        size="xs"
        aria-label="key"
        data={[...new Set([...Object.values(channels), ...planKeys, ...Object.keys(words)])]}
        value={key}
        classNames={{ input: 'mono' }}
        onChange={(next) => onChange(stepOf(kind, next, typed))}
      />
      {kind === 'rename' && (
        <TextInput
          size="xs"
          aria-label="to"
          placeholder="to what?"
          classNames={{ input: 'mono' }}
          value={typed}
          onChange={(e) => onChange(stepOf(kind, key, e.target.value))}
        />
      )}
      {(kind === 'set' || kind === 'add') && (
        <>
          <Autocomplete
            ref={field}
            size="xs"
            aria-label="value"
            data={[...new Set([...(words[key] ?? []).filter(isInUse).map((w) => w.word), ...plainIn(plan, key)])]}
            selectFirstOptionOnChange={false}
            classNames={{ input: 'mono' }}
            value={typed}
            onChange={(next) => onChange(stepOf(kind, key, next))}
          />
          <Menu position="bottom-end">
            <Menu.Target>
              <button type="button" className={css.link}>
                a column
              </button>
            </Menu.Target>
            <Menu.Dropdown mah={300} style={{ overflow: 'auto' }}>
              {columns.map((c) => (
                <Menu.Item
                  key={c.name}
                  onClick={() => insert(`‹${c.name}›`)}
                  rightSection={<small>{c.example.slice(0, 26)}</small>}
                >
                  <span className="mono">{c.name}</span>
                </Menu.Item>
              ))}
              <Menu.Divider />
              {columns
                .filter((c) => /[\s\p{Lu}]/u.test(c.example) && c.links < 0.5)
                .map((c) => (
                  <Menu.Item key={c.name} onClick={() => insert(`‹${c.name} slug›`)}>
                    <span className="mono">{c.name}</span> as a word of small letters
                  </Menu.Item>
                ))}
            </Menu.Dropdown>
          </Menu>
        </>
      )}
      {onOut && (
        <button type="button" className={css.link} aria-label="take the step out" onClick={onOut}>
          ×
        </button>
      )}
    </div>
  );
}
