import { Button } from '@mantine/core';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { FindingList, type Finding } from '../../components/FindingList';
import { Empty, Notice } from '../../components/Notice';
import { ReportLine } from '../../components/ReportLine';
import { Ribbon, RibbonLegend } from '../../components/Ribbon';
import { State } from '../../components/State';
import { Strata, type Tried } from '../../components/Strata';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { ArrivalTable } from './ArrivalTable';
import { Bench } from './Bench';
import { ClickContext } from './ClickContext';
import { ForReal } from './ForReal';
import { Past } from './Past';
import { Trail } from './Trail';
import css from './trace.module.css';
import { keyOf, useChanged } from '../../lib/queries';
import { moment } from '../../lib/moments';

export default function TracePage() {
  const { node } = useParams();
  return node ? <TraceOf key={node} node={Number(node)} /> : <Bench />;
}

function TraceOf({ node }: { node: number }) {
  const { client, to, mayEdit } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const [context, setContext] = useState<Record<string, string>>({});
  const [tried, setTried] = useState<Tried[]>([]);
  const trace = useQuery({
    queryKey: keyOf('trace', node, context, tried),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/nodes/{node}/trace', {
          params: { path: { client: client.id, node } },
          body: { context, texts: tried },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const parent = trace.data?.path.at(-2)?.id;
  const siblings = useQuery({
    queryKey: keyOf('rows', 'page', trace.data?.account, parent),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/rows', {
          params: {
            path: { client: client.id, account: trace.data!.account },
            query: { parent: String(parent), limit: '200' },
          },
        }),
      ),
    enabled: parent !== undefined,
  });
  const step = useCallback(
    (by: number) => {
      const rows = siblings.data?.rows ?? [];
      const next = rows[rows.findIndex((r) => r.id === node) + by];
      if (next) void navigate(to(`trace/${next.id}`));
    },
    [siblings.data, node, navigate, to],
  );
  const device = trace.data?.context.device ?? 'mobile';
  const put = useCallback(
    (text: Tried) =>
      setTried((before) => [
        ...before.filter(
          (x) => x.node !== text.node || x.slot !== text.slot || (x.custom ?? null) !== (text.custom ?? null),
        ),
        text,
      ]),
    [],
  );
  const fix = useCallback(
    (f: Finding) =>
      f.fix &&
      f.node !== null &&
      f.slot &&
      put({ node: f.node, slot: f.slot as Tried['slot'], custom: f.custom, text: f.fix.text }),
    [put],
  );
  const fixes = trace.data?.findings;
  const make = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/changes', {
          params: { path: { client: client.id } },
          body: {
            account: trace.data!.account,
            title: `${trace.data!.name}: ${tried.length === 1 ? 'another text' : `${tried.length} other texts`}`,
            texts: tried,
          },
        }),
      ),
    onSuccess: ({ id }) => {
      changed('change');
      void navigate(to(`changes/${id}`));
    },
  });
  const makeChange = make.mutate;
  const mayMake = mayEdit && tried.length > 0 && !trace.data?.goneAt;
  useKeys(
    useMemo(() => {
      const devices = ['desktop', 'mobile', 'tablet'];
      return {
        j: () => step(1),
        k: () => step(-1),
        d: () => setContext((c) => ({ ...c, device: devices[(devices.indexOf(device) + 1) % 3]! })),
        f: () => {
          const one = fixes?.find((x) => x.fix);
          if (one) fix(one);
        },
        m: () => mayMake && makeChange(),
      };
    }, [step, device, fixes, fix, mayMake, makeChange]),
  );
  if (trace.error) {
    return (
      <Empty title="This can’t be traced" action={<Link to={to('accounts')}>Open the accounts</Link>}>
        {trace.error.message}
      </Empty>
    );
  }
  if (!trace.data) return null;
  const t = trace.data;
  const bad = [...new Set(t.arrival.filter((p) => p.verdict === 'wrong' || p.verdict === 'twice').map((p) => p.key))];
  return (
    <div className={css.page}>
      <aside className={css.side}>
        <nav className={css.crumbs} aria-label="where the ad stands">
          {t.path.map((n, i) => (
            <Link
              key={n.id}
              to={to(`accounts/${t.account}?at=${n.id}`)}
              style={{ paddingLeft: i * 10 }}
              title={`${n.level} ${n.externalId}`}
            >
              {i === t.path.length - 1 ? <b>{n.name}</b> : n.name}
            </Link>
          ))}
        </nav>
        <Verdict trace={t} tried={tried.length > 0} onContext={setContext} />
        <section className={css.findings} aria-labelledby="found">
          <h2 id="found">
            Findings{' '}
            <span className="quiet">{t.findings.length === 0 ? 'none: its texts are sound' : t.findings.length}</span>
          </h2>
          <FindingList
            label="what is wrong with its texts, the worst first"
            findings={t.findings}
            at={t.findings.findIndex((x) => x.fix)}
            onFix={fix}
            fixWords="try"
          />
        </section>
        <ClickContext
          fields={t.fields}
          values={t.context}
          onChange={(field, value) => setContext({ ...context, [field]: value })}
        />
      </aside>
      <div className={css.body}>
        {t.goneAt && (
          <Notice calm>
            {t.platform} has not had this ad since {moment(t.goneAt)}. It is shown as it was last.
          </Notice>
        )}
        <section aria-labelledby="sends">
          <div className={css.headline}>
            <h2 id="sends">
              {t.backgroundUrl ? 'The browser opens' : 'The click opens'}
              {tried.length > 0 && (
                <span className={css.tried}>
                  {' '}
                  with {tried.length === 1 ? 'a text' : `${tried.length} texts`} tried, not saved
                </span>
              )}
            </h2>
            {tried.length > 0 && (
              <Button size="compact-xs" variant="subtle" onClick={() => setTried([])}>
                Back to what is live
              </Button>
            )}
            {mayMake && (
              <Button
                size="compact-xs"
                loading={make.isPending}
                onClick={() => make.mutate()}
                rightSection={<kbd>m</kbd>}
              >
                Make it a change
              </Button>
            )}
            <span style={{ flex: 1 }} />
            <RibbonLegend />
          </div>
          {make.error && <Notice>{make.error.message}</Notice>}
          <div className={css.ribbon} data-testid="ribbon">
            <Ribbon
              segments={t.ribbon}
              bad={bad}
              onPick={(s) =>
                document
                  .querySelector(`[data-slot="${s.slot ?? ''}"][data-state="counts"]`)
                  ?.scrollIntoView({ block: 'center' })
              }
            />
          </div>
        </section>
        <section aria-labelledby="line">
          <h2 id="line">A report reads it as</h2>
          <ReportLine line={t.line} />
        </section>
        <Past node={node} />
        <section aria-labelledby="strata">
          <h2 id="strata">What each level says</h2>
          <Strata strata={t.strata} findings={t.findings} tried={tried} onTry={put} offers={t.offers} />
        </section>
        <div className={css.two}>
          <section aria-labelledby="arrives">
            <h2 id="arrives">What arrives</h2>
            <ArrivalTable pairs={t.arrival} />
          </section>
          <section aria-labelledby="trail">
            <h2 id="trail">The trail</h2>
            <Trail trail={t.trail} backgroundUrl={t.backgroundUrl} />
          </section>
        </div>
        {mayEdit && !t.goneAt && <ForReal key={node} node={node} />}
      </div>
    </div>
  );
}

function Verdict({
  trace,
  tried,
  onContext,
}: {
  trace: Schema['Trace'];
  tried: boolean;
  onContext: (context: Record<string, string>) => void;
}) {
  if (!trace.verdict) return <Notice calm>There is no plan yet, so nothing can be proven.</Notice>;
  const { state, clicks, faults } = trace.verdict;
  const { variant } = trace;
  return (
    <div className={css.verdict} data-testid="verdict">
      <div>
        <State state={state} />{' '}
        <span className="quiet">
          {tried && 'as tried, '}
          {state === 'proven'
            ? `for all ${clicks} kinds of click`
            : `in ${faults.length} ${faults.length === 1 ? 'way' : 'ways'}`}
          {variant && (
            <>
              {' by the plan '}
              <b>{variant.title}</b>, since {variant.for}
            </>
          )}
        </span>
      </div>
      <ul>
        {faults.map((f) => (
          <li key={`${f.code}${f.key}`}>
            {f.reason}{' '}
            <button type="button" className={css.show} onClick={() => onContext(f.context)}>
              show the click
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
