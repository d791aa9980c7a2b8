import { Button, Switch, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { StateBar } from '../../components/State';
import { adviceWords } from '../../lib/advice';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { usePlan } from '../../lib/usePlan';
import { firstPlan, type Parameter } from './planText';
import { History } from './History';
import { KeySets } from './KeySets';
import { PlanMatrix } from './PlanMatrix';
import { VariantFor, VariantTabs } from './Variants';
import { anotherOf, lacking, type Variant } from './variantText';
import { WouldDo } from './WouldDo';
import { Rooms } from '../agree/Rooms';
import type { OwnPlan } from '../accounts/ownPlan';
import css from './plan.module.css';
import { num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';

export default function PlanPage() {
  const plan = usePlan({ isEdited: true });
  if (plan.error) return <Notice>{plan.error.message}</Notice>;
  return plan.data ? <Plan key={plan.data.revision} saved={plan.data} /> : null;
}

function Plan({ saved }: { saved: Schema['Plan'] }) {
  const { client, mayEdit } = useHere();
  const queries = useQueryClient();
  const changed = useChanged();
  const navigate = useNavigate();
  const asked = useLocation().state as OwnPlan | null;
  const [own] = useState(() => (asked && saved.document ? anotherOf(saved.document, saved.fields, asked) : null));
  const [document, setDocument] = useState(() =>
    own && saved.document ? { ...saved.document, variants: [...(saved.document.variants ?? []), own] } : saved.document,
  );
  useEffect(() => {
    if (asked) void navigate('.', { replace: true, state: null }); // once is enough
  }, [asked, navigate]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [fromDay, setFromDay] = useState(saved.today);
  const [at, setAt] = useState(own?.id ?? '');
  const edited = JSON.stringify(document) !== JSON.stringify(saved.document);
  const variants = document?.variants ?? [];
  const index = variants.findIndex((v) => v.id === at);
  const variant = variants[index];
  const lacks = variants.map(lacking).find((l) => l !== null) ?? null;
  const preview = useQuery({
    queryKey: keyOf('preview', client.id, document, variant?.id ?? ''),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/plan/preview', {
          params: { path: { client: client.id } },
          body: { document: document!, variant: variant?.id ?? '' },
        }),
      ),
    enabled: document !== null && lacks === null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const platforms = useQuery({
    queryKey: keyOf('platforms', client.id),
    queryFn: () => data(api.GET('/clients/{client}/platforms', { params: { path: { client: client.id } } })),
    enabled: saved.document === null,
  });
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/clients/{client}/plan', {
          params: { path: { client: client.id } },
          body: { revision: saved.revision, fromDay, document: document! },
        }),
      ),
    onSuccess: (now) => {
      queries.setQueryData(keyOf('plan', client.id), now);
      changed('plan');
      notifications.show({
        withCloseButton: false,
        message:
          now.counts === now.revision
            ? `Saved as revision ${now.revision}. All ads are being proven against it.`
            : `Saved as revision ${now.revision}. It counts from ${now.fromDay}; all ads are proven against it then.`,
      });
    },
  });
  if (document === null) {
    return (
      <Empty
        title="What must every click carry?"
        action={
          mayEdit && (
            <Button disabled={!platforms.data} onClick={() => setDocument(firstPlan(platforms.data!.items))}>
              Begin with the five UTM keys
            </Button>
          )
        }
      >
        The plan is the agreement: which keys a click arrives with, and what each says, in words that hold on every
        platform. Vestigon proves every ad against it.
      </Empty>
    );
  }
  const setVariants = (next: Variant[]) => setDocument({ ...document, variants: next.length === 0 ? undefined : next });
  const setVariant = (next: Variant) => setVariants(variants.map((v) => (v.id === next.id ? next : v)));
  const parameters = variant?.parameters ?? document.parameters;
  const set = (next: Parameter[]) =>
    variant ? setVariant({ ...variant, parameters: next }) : setDocument({ ...document, parameters: next });
  return (
    <div className={css.page}>
      <Rooms />
      <div className={css.bar}>
        <TextInput
          size="sm"
          w={300}
          aria-label="title of the plan"
          value={document.title}
          readOnly={!mayEdit}
          onChange={(e) => setDocument({ ...document, title: e.target.value })}
        />
        <Switch
          label="the click ID must arrive"
          checked={document.clickId === 'required'}
          disabled={!mayEdit}
          onChange={(e) => setDocument({ ...document, clickId: e.target.checked ? 'required' : 'optional' })}
        />
        {mayEdit && <KeySets parameters={parameters} onAdd={(more) => set([...parameters, ...more])} />}
        <span style={{ flex: 1 }} />
        {saved.revision === 0 ? (
          <span className="quiet">not saved yet</span>
        ) : (
          <History
            revision={saved.revision}
            isEdited={edited}
            mayEdit={mayEdit}
            onLoaded={(loaded) => {
              setTrouble(null);
              setDocument(loaded);
            }}
            onTrouble={setTrouble}
          />
        )}
        {edited && saved.document && (
          <Button size="xs" variant="subtle" onClick={() => setDocument(saved.document)}>
            Undo all
          </Button>
        )}
        {edited && mayEdit && (
          <TextInput
            size="xs"
            type="date"
            aria-label="from which day it counts"
            title="from which day it counts"
            value={fromDay}
            onChange={(e) => setFromDay(e.target.value || saved.today)}
          />
        )}
        {mayEdit && (
          <Button
            size="xs"
            disabled={!edited || preview.isError || lacks !== null}
            loading={save.isPending}
            onClick={() => save.mutate()}
          >
            Save the plan
          </Button>
        )}
      </div>
      {(preview.error ?? save.error) && <Notice>{(preview.error ?? save.error)!.message}</Notice>}
      {trouble !== null && <Notice>{trouble}</Notice>}
      {saved.counts !== saved.revision && (
        <Notice calm>
          Revision {saved.revision} counts from {saved.fromDay}.{' '}
          {saved.counts === 0 ? 'Until then there is no plan.' : `Until then revision ${saved.counts} does.`}
        </Notice>
      )}
      <VariantTabs
        variants={variants}
        at={variant ? at : ''}
        counts={preview.data?.counts}
        onLook={setAt}
        onAdd={
          mayEdit
            ? () => {
                const another = anotherOf(document, saved.fields);
                setVariants([...variants, another]);
                setAt(another.id);
              }
            : undefined
        }
      />
      {variant && (
        <VariantFor
          key={variant.id}
          variant={variant}
          fields={saved.fields}
          index={index}
          of={variants.length}
          onChange={mayEdit ? setVariant : undefined}
          onMove={(to) => {
            const rest = variants.filter((v) => v.id !== variant.id);
            setVariants([...rest.slice(0, to), variant, ...rest.slice(to)]);
          }}
          onOut={() => setVariants(variants.filter((v) => v.id !== variant.id))}
        />
      )}
      {lacks !== null && <Notice calm>{lacks}</Notice>}
      <PlanMatrix
        parameters={parameters}
        fields={saved.fields}
        preview={preview.data}
        wanted={document.channels ?? {}}
        onChange={mayEdit ? set : undefined}
        onWanted={mayEdit ? (channels) => setDocument({ ...document, channels }) : undefined}
      />
      {saved.document && edited && !preview.isError && lacks === null && (
        <WouldDo
          document={document}
          platforms={new Map(preview.data?.samples.map((x) => [x.dialect, x.platform] as const))}
        />
      )}
      {saved.document && <Kept edited={edited} />}
      {saved.document && <Saving revision={saved.revision} />}
    </div>
  );
}

/** How far each account keeps the plan as it is saved. */
function Kept({ edited }: { edited: boolean }) {
  const { to } = useHere();
  const accounts = useAccounts();
  return (
    <section>
      <h2 className={css.keptHead}>How it is kept{edited && <span className="quiet"> (as last saved)</span>}</h2>
      {accounts.data?.items.map((a) => (
        <Link key={a.id} to={to(`accounts/${a.id}`)} className={css.kept}>
          <span>{a.name}</span>
          <StateBar {...a} />
          <span className="quiet">
            {num(a.proven)} of {num(a.ads)} ads proven
          </span>
        </Link>
      ))}
    </section>
  );
}

/** Where a small give in the plan would save many writes, found when changes were worked out. */
function Saving({ revision }: { revision: number }) {
  const { client, to } = useHere();
  const advice = useQuery({
    queryKey: keyOf('advice', client.id, revision),
    queryFn: () => data(api.GET('/clients/{client}/plan/advice', { params: { path: { client: client.id } } })),
  });
  if (!advice.data || advice.data.items.length === 0) return null;
  return (
    <section>
      <h2 className={css.keptHead}>What a give would save</h2>
      {advice.data.items.map((a) => (
        <Link key={`${a.account.id} ${a.key}`} to={to(`changes/${a.change}`)} className={css.saving}>
          <span>{a.account.name}</span>
          <b className="mono">{a.key}</b>
          <span>{adviceWords(a)}</span>
        </Link>
      ))}
    </section>
  );
}
