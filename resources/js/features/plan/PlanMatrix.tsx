import { Button, Checkbox, Tooltip } from '@mantine/core';
import type { Schema } from '../../api/client';
import { Moves } from '../../components/Moves';
import { Counted } from './Counted';
import { Given } from './Given';
import { PartsInput } from './PartsInput';
import { toParts, toText, type Parameter } from './planText';
import { fixed, isAt, Wrong, type Spot } from './Wrong';
import css from './plan.module.css';

interface Props {
  parameters: readonly Parameter[];
  fields: readonly string[];
  preview: Schema['PlanPreview'] | undefined;
  /** platform family → the channel that its clicks are to be counted in */
  wanted: Readonly<Record<string, string>>;
  onChange?: (parameters: Parameter[]) => void;
  onWanted?: (wanted: Record<string, string>) => void;
}

/** The agreement on the left, and beside each key what real ads of each kind would send by it. */
export function PlanMatrix({ parameters, fields, preview, wanted, onChange, onWanted }: Props) {
  const samples = preview?.samples ?? [];
  const set = (i: number, change: Partial<Parameter>) =>
    onChange?.(parameters.map((p, n) => (n === i ? { ...p, ...change } : p)));
  const move = (i: number, by: number) => {
    const next = [...parameters];
    const [one] = next.splice(i, 1);
    next.splice(i + by, 0, one!);
    onChange?.(next);
  };
  const readOnly = !onChange;
  /** what is wrong with a cell of a key, with the one key that mends it */
  const wrong = (i: number, at: Spot) => {
    const p = parameters[i]!;
    return (
      <Wrong
        findings={(preview?.findings ?? []).filter((f) => f.key === p.key && isAt(f, at, p))}
        onFix={readOnly ? undefined : (text) => set(i, fixed(p, at, text))}
      />
    );
  };
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
                {wrong(i, {})}
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
                {wrong(i, { fallback: 0 })}
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
                  <Moves
                    what={p.key}
                    at={i}
                    of={parameters.length}
                    onMove={(to) => move(i, to - i)}
                    onOut={() => onChange(parameters.filter((_, n) => n !== i))}
                  />
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
                  {/* what is said for a platform is told once, whatever types it has */}
                  {samples.find((x) => x.dialect === s.dialect) === s && wrong(i, { platform: s.dialect })}
                </td>
              ))}
            </tr>
          ))}
          <Counted samples={samples} channels={preview?.channels ?? []} wanted={wanted} onWanted={onWanted} />
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
