import { ActionIcon, Button, Checkbox, Tooltip } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconX } from '@tabler/icons-react';
import type { Schema } from '../../api/client';
import { Given } from './Given';
import { PartsInput } from './PartsInput';
import { toParts, toText, type Parameter } from './planText';
import css from './plan.module.css';

type Sample = Schema['PlanPreview']['samples'][number];

interface Props {
  parameters: readonly Parameter[];
  fields: readonly string[];
  samples: readonly Sample[];
  onChange?: (parameters: Parameter[]) => void;
}

/** The agreement on the left, and beside each key what real ads of each kind would send by it. */
export function PlanMatrix({ parameters, fields, samples, onChange }: Props) {
  const set = (i: number, change: Partial<Parameter>) =>
    onChange?.(parameters.map((p, n) => (n === i ? { ...p, ...change } : p)));
  const move = (i: number, by: number) => {
    const next = [...parameters];
    const [one] = next.splice(i, 1);
    next.splice(i + by, 0, one!);
    onChange?.(next);
  };
  const readOnly = !onChange;
  return (
    <div className={css.scroll}>
      <table className={css.matrix}>
        <thead>
          <tr>
            <th scope="col">key</th>
            <th scope="col">says</th>
            <th scope="col">where that can’t be given</th>
            <th scope="col">as a name for reports</th>
            <th scope="col">required</th>
            <th />
            {samples.map((s) => (
              <th key={s.platform + s.type} scope="col" className={css.sample}>
                {s.platform} · {s.type}
                <span title={s.ad}>{s.ad}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {parameters.map((p, i) => (
            <tr key={i}>
              <td>
                <input
                  className={`${css.input} mono`}
                  aria-label={`key ${i + 1}`}
                  value={p.key}
                  readOnly={readOnly}
                  spellCheck={false}
                  onChange={(e) => set(i, { key: e.target.value })}
                />
              </td>
              <td>
                <PartsInput
                  label={`what ${p.key} says`}
                  text={toText(p.parts)}
                  fields={fields}
                  readOnly={readOnly}
                  onChange={(text) => set(i, { parts: toParts(text) })}
                />
              </td>
              <td>
                <PartsInput
                  label={`what ${p.key} says where that can’t be given`}
                  text={p.fallback?.[0] ? toText(p.fallback[0]) : ''}
                  fields={fields}
                  readOnly={readOnly}
                  placeholder="nothing"
                  onChange={(text) =>
                    set(i, { fallback: text === '' ? undefined : [toParts(text), ...(p.fallback ?? []).slice(1)] })
                  }
                />
              </td>
              <td className={css.check}>
                <Tooltip label="Island Hopper & Co → island_hopper_co" openDelay={300}>
                  <Checkbox
                    size="xs"
                    aria-label={`${p.key} as a name for reports`}
                    checked={p.shape === 'slug'}
                    disabled={readOnly}
                    onChange={(e) => set(i, { shape: e.target.checked ? 'slug' : undefined })}
                  />
                </Tooltip>
              </td>
              <td className={css.check}>
                <Checkbox
                  size="xs"
                  aria-label={`${p.key} is required`}
                  checked={p.required ?? false}
                  disabled={readOnly}
                  onChange={(e) => set(i, { required: e.target.checked || undefined })}
                />
              </td>
              <td className={css.acts}>
                {!readOnly && (
                  <>
                    <ActionIcon
                      size={24}
                      variant="subtle"
                      color="gray"
                      aria-label={`move ${p.key} up`}
                      disabled={i === 0}
                      onClick={() => move(i, -1)}
                    >
                      <IconArrowUp size={14} />
                    </ActionIcon>
                    <ActionIcon
                      size={24}
                      variant="subtle"
                      color="gray"
                      aria-label={`move ${p.key} down`}
                      disabled={i === parameters.length - 1}
                      onClick={() => move(i, 1)}
                    >
                      <IconArrowDown size={14} />
                    </ActionIcon>
                    <ActionIcon
                      size={24}
                      variant="subtle"
                      color="gray"
                      aria-label={`take ${p.key} out`}
                      onClick={() => onChange(parameters.filter((_, n) => n !== i))}
                    >
                      <IconX size={14} />
                    </ActionIcon>
                  </>
                )}
              </td>
              {samples.map((s) => (
                <td key={s.platform + s.type} className={css.sample}>
                  <Given
                    sample={s}
                    parameter={p}
                    fields={fields}
                    onChange={readOnly ? undefined : (change) => set(i, change)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {onChange && (
        <Button
          size="xs"
          variant="subtle"
          mt={6}
          onClick={() => onChange([...parameters, { key: `key_${parameters.length + 1}`, parts: [{ text: '' }] }])}
        >
          Add a key
        </Button>
      )}
      <p className={css.hint}>
        Fixed text as it stands; a field in angle quotes, such as <span className={css.field}>‹campaign.name›</span>:
        type <kbd>&lt;</kbd> and choose. Both can stand in one value.
      </p>
    </div>
  );
}
