import { Button, CloseButton, MultiSelect, Select, Tabs, TagsInput, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { api, data, type Schema } from '../../api/client';
import { Moves } from '../../components/Moves';
import { num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import type { Variant } from './variantText';
import css from './plan.module.css';

interface Props {
  variants: readonly Variant[];
  /** the id of the one that is looked at; empty: the plan itself */
  at: string;
  counts: Schema['PlanPreview']['counts'] | undefined;
  onLook: (id: string) => void;
  onAdd?: () => void;
}

/** The plan, and what takes its place for some ads: each as wide as its ads are many. */
export function VariantTabs({ variants, at, counts, onLook, onAdd }: Props) {
  if (variants.length === 0 && !onAdd) return null;
  const all = [{ id: '', title: 'everything else' }, ...variants];
  const many = (id: string) => counts?.ads[id];
  return (
    <div className={css.variants}>
      {variants.length > 0 && (
        <Tabs value={at === '' ? '-' : at} onChange={(id) => onLook(id === '-' || id === null ? '' : id)}>
          <Tabs.List aria-label="plans">
            {all.map((v) => (
              <Tabs.Tab key={v.id} value={v.id === '' ? '-' : v.id}>
                {v.title || 'without a title'}{' '}
                <span className="quiet">
                  {many(v.id) !== undefined && `${num(many(v.id)!)} ad${many(v.id) === 1 ? '' : 's'}`}
                </span>
              </Tabs.Tab>
            ))}
          </Tabs.List>
        </Tabs>
      )}
      {onAdd && (
        <Button size="xs" variant="subtle" onClick={onAdd}>
          Another plan for some ads
        </Button>
      )}
      {counts && !counts.whole && variants.length > 0 && <span className="quiet">of the first of each account</span>}
      <div className={css.shares} aria-hidden>
        {variants.length > 0 &&
          all.map((v) => (
            <i key={v.id} data-at={v.id === at || undefined} style={{ flexGrow: Math.max(many(v.id) ?? 0, 0.02) }} />
          ))}
      </div>
    </div>
  );
}

interface ForProps {
  variant: Variant;
  fields: readonly string[];
  index: number;
  of: number;
  onChange?: (variant: Variant) => void;
  onMove: (to: number) => void;
  onOut: () => void;
}

/** For whom a variant counts: all that is said here must be so. */
export function VariantFor({ variant, fields, index, of, onChange, onMove, onOut }: ForProps) {
  const { client } = useHere();
  const platforms = useQuery({
    queryKey: keyOf('platforms', client.id),
    queryFn: () => data(api.GET('/clients/{client}/platforms', { params: { path: { client: client.id } } })),
  });
  const used = (platforms.data?.items ?? []).filter((p) => p.accounts > 0 || variant.for.platforms?.includes(p.id));
  const types = [...new Set(used.flatMap((p) => p.types))].sort();
  const where = variant.for.where ?? [];
  const set = (change: Partial<Variant['for']>) => onChange?.({ ...variant, for: { ...variant.for, ...change } });
  const setWhere = (next: typeof where) => set({ where: next.length === 0 ? undefined : next });
  const readOnly = !onChange;
  return (
    <div className={css.for}>
      <TextInput
        size="xs"
        label="title"
        data-autofocus
        value={variant.title}
        readOnly={readOnly}
        onChange={(e) => onChange?.({ ...variant, title: e.target.value })}
      />
      <MultiSelect
        size="xs"
        label="counts on platforms"
        placeholder={variant.for.platforms ? undefined : 'any'}
        data={used.map((p) => ({ value: p.id, label: p.title }))}
        value={variant.for.platforms ?? []}
        readOnly={readOnly}
        onChange={(ids) => set({ platforms: ids.length === 0 ? undefined : ids })}
      />
      <MultiSelect
        size="xs"
        label="for campaigns of type"
        placeholder={variant.for.types ? undefined : 'any'}
        data={types}
        value={variant.for.types ?? []}
        readOnly={readOnly}
        onChange={(some) => set({ types: some.length === 0 ? undefined : some })}
      />
      {where.map((w, i) => (
        <div key={i} className={css.where}>
          <Select
            size="xs"
            label="where"
            data={fields.filter((f) => /^(account|campaign|group)\./.test(f))}
            value={w.field}
            readOnly={readOnly}
            allowDeselect={false}
            onChange={(field) => setWhere(where.map((x, n) => (n === i ? { ...x, field: field ?? x.field } : x)))}
          />
          <TagsInput
            size="xs"
            label={`${w.field} is`}
            placeholder={w.is.length === 0 ? 'a value, Enter' : undefined}
            value={w.is}
            readOnly={readOnly}
            acceptValueOnBlur
            onChange={(is) => setWhere(where.map((x, n) => (n === i ? { ...x, is } : x)))}
          />
          {!readOnly && (
            <CloseButton
              size="sm"
              aria-label={`without ${w.field}`}
              onClick={() => setWhere(where.filter((_, n) => n !== i))}
            />
          )}
        </div>
      ))}
      {!readOnly && (
        <>
          <Button size="xs" variant="subtle" onClick={() => setWhere([...where, { field: 'campaign.name', is: [] }])}>
            and where …
          </Button>
          <span className={css.moves}>
            <Moves what={variant.title} at={index} of={of} onMove={onMove} onOut={onOut} />
          </span>
        </>
      )}
    </div>
  );
}
