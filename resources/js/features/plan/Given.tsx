import { Button, Popover } from '@mantine/core';
import { useState } from 'react';
import type { Schema } from '../../api/client';
import { PartsInput } from './PartsInput';
import { toParts, toText, type Parameter } from './planText';
import css from './plan.module.css';

type Sample = Schema['PlanPreview']['samples'][number];

interface Props {
  sample: Sample;
  parameter: Parameter;
  fields: readonly string[];
  onChange?: (change: Partial<Parameter>) => void;
}

/** Is a field of the same kind as those that can't be given: of elements, or of the click? */
function near(field: string, parameter: Parameter): boolean {
  const wanted = parameter.parts.map((p) => p.field ?? '');
  const isOwned = (f: string) => /^(account|folder|campaign|group|ad)\./.test(f);
  return wanted.some((w) => w !== '' && isOwned(w) === isOwned(field)) || field === 'ad.id';
}

/** What one key says on one platform, for a real ad; pressed, it can say something else there than elsewhere. */
export function Given({ sample, parameter, fields, onChange }: Props) {
  const [open, setOpen] = useState(false);
  const pair = sample.pairs.find((x) => x.key === parameter.key);
  const other = parameter.platforms?.[sample.dialect] as { parts?: Schema['PlanPart'][]; omit?: boolean } | undefined;
  const shown = <Value pair={pair} isOther={other !== undefined} />;
  if (!onChange) return shown;
  const set = (value: unknown) => {
    const platforms = { ...parameter.platforms, [sample.dialect]: value };
    if (value === undefined) delete platforms[sample.dialect];
    onChange({ platforms: Object.keys(platforms).length === 0 ? undefined : platforms });
  };
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-start" width={280} trapFocus withinPortal>
      <Popover.Target>
        <button
          type="button"
          className={css.given}
          aria-label={`${parameter.key} on ${sample.platform}`}
          onClick={() => setOpen(!open)}
        >
          {shown}
        </button>
      </Popover.Target>
      <Popover.Dropdown p="sm">
        <div className={css.only}>
          <span>
            On {sample.platform}, <b className="mono">{parameter.key}</b> says
          </span>
          <PartsInput
            label={`what ${parameter.key} says on ${sample.platform}`}
            text={other?.omit ? '' : toText(other?.parts ?? parameter.parts)}
            fields={fields}
            placeholder="left out"
            onChange={(text) => set({ parts: toParts(text) })}
          />
          {pair?.unmet && (
            <div className={css.could}>
              <span>{pair.unmet}. It could say</span>
              {sample.could
                .filter((f) => near(f, parameter))
                .map((f) => (
                  <Button key={f} size="compact-xs" variant="default" onClick={() => set({ parts: [{ field: f }] })}>
                    ‹{f}›
                  </Button>
                ))}
            </div>
          )}
          <span className={css.onlyActs}>
            <Button size="compact-xs" variant="subtle" disabled={other === undefined} onClick={() => set(undefined)}>
              as everywhere
            </Button>
            <Button
              size="compact-xs"
              variant="subtle"
              disabled={other?.omit === true}
              onClick={() => set({ omit: true })}
            >
              leave it out here
            </Button>
          </span>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

function Value({ pair, isOther }: { pair: Sample['pairs'][number] | undefined; isOther: boolean }) {
  if (!pair) return <span className="quiet">{isOther ? 'left out here' : 'not here'}</span>;
  if (pair.unmet) {
    return (
      <span className={css.unmet} title={pair.unmet}>
        can’t be given
      </span>
    );
  }
  return (
    <>
      <span className={`mono ${css.value}`} title={pair.value ?? ''}>
        {pair.value === '' ? <span className="quiet">empty</span> : pair.value}
      </span>
      <span className={css.means}>
        {pair.means}
        {isOther && <b> · only here</b>}
      </span>
    </>
  );
}
