import { SegmentedControl, Select, Textarea } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data } from '../../api/client';
import { FindingList } from '../../components/FindingList';
import { Empty, Notice } from '../../components/Notice';
import { Pairs } from '../../components/Pairs';
import { ReportLine } from '../../components/ReportLine';
import { Ribbon, RibbonLegend } from '../../components/Ribbon';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { clickFields, firstTexts, type Document } from '../platforms/document';
import { SlotInputs } from '../platforms/SlotInputs';
import { clickOf, elementsOf, useTrial, type Texts } from '../platforms/useTrial';
import { ClickContext } from './ClickContext';
import { Senders } from './Senders';
import { Trail } from './Trail';
import { manyIn } from './many';
import { ManyUrls } from './ManyUrls';
import { placed } from './placed';
import css from './trace.module.css';

/** Any URL or text on any platform, without an ad: what a click sends, while it is typed. */
export function Bench() {
  const { client, to } = useHere();
  const platforms = useQuery({
    queryKey: keyOf('platforms', client.id),
    queryFn: () => data(api.GET('/clients/{client}/platforms', { params: { path: { client: client.id } } })),
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const list = platforms.data?.items ?? [];
  const most = list.reduce<(typeof list)[number] | undefined>(
    (a, p) => (a && a.accounts >= p.accounts ? a : p),
    undefined,
  );
  const id = chosen ?? most?.id;
  const platform = useQuery({
    queryKey: keyOf('platform', client.id, id),
    queryFn: () =>
      data(api.GET('/clients/{client}/platforms/{dialect}', { params: { path: { client: client.id, dialect: id! } } })),
    enabled: id !== undefined,
  });
  if (platforms.error ?? platform.error) {
    return <Empty title="Nothing can be tried">{(platforms.error ?? platform.error)!.message}</Empty>;
  }
  if (!platform.data) return null;
  return (
    <On
      key={id}
      document={platform.data.document as unknown as Document}
      yaml={platform.data.yaml}
      picker={
        <Select
          label="Platform"
          size="xs"
          searchable
          allowDeselect={false}
          value={id ?? null}
          onChange={setChosen}
          data={list.map((p) => ({ value: p.id, label: p.title }))}
        />
      }
      accounts={to('accounts')}
    />
  );
}

interface Props {
  document: Document;
  yaml: string;
  picker: React.ReactNode;
  accounts: string;
}

function On({ document, yaml, picker, accounts }: Props) {
  const [params] = useSearchParams();
  const [pasted, setPasted] = useState(params.get('url') ?? '');
  const [texts, setTexts] = useState<Texts>(() => putInPlace(document, pasted) ?? firstTexts(document));
  const [type, setType] = useState(document.campaignTypes[0] ?? '');
  const [context, setContext] = useState<Record<string, string>>({});
  const click = clickOf(document, context);
  const trial = useTrial(yaml, elementsOf(document, texts, type), click);
  const sent = trial.data?.click;
  const put = (level: string, slot: string, text: string) =>
    setTexts((before) => ({ ...before, [level]: { ...before[level], [slot]: text } }));
  const lines = manyIn(pasted);
  const place = pasted === '' ? undefined : placed(document, pasted);
  const paste = (text: string) => {
    setPasted(text);
    if (!manyIn(text)) setTexts((before) => putInPlace(document, text) ?? before);
  };
  return (
    <div className={css.page}>
      <aside className={css.side}>
        <p className={`quiet ${css.hint}`}>
          Any text on any platform, without an ad. An ad is found with <kbd>Ctrl K</kbd>, or in{' '}
          <Link to={accounts}>the accounts</Link>.
        </p>
        {!lines && (
          <>
            {picker}
            {document.campaignTypes.length > 1 && (
              <SegmentedControl
                size="xs"
                flex="none"
                aria-label="campaign type"
                value={type}
                onChange={setType}
                data={[...document.campaignTypes]}
              />
            )}
            <section className={css.findings} aria-labelledby="found">
              <h2 id="found">Findings</h2>
              <FindingList
                label="what is wrong with the texts"
                findings={sent?.findings ?? []}
                onFix={(f) => f.fix && f.slot && f.level && put(f.level, f.slot, f.fix.text ?? '')}
              />
            </section>
            <ClickContext
              fields={clickFields(document).map((field) => ({ field, values: [], suggestions: [] }))}
              values={click}
              onChange={(field, value) => setContext({ ...context, [field]: value })}
            />
          </>
        )}
      </aside>
      <div className={css.body}>
        <Textarea
          label="A URL or a text"
          description="it goes to the slot that it looks made for; of many lines of URLs you see whose they are"
          placeholder="https://…, a template or a suffix"
          autosize
          minRows={1}
          maxRows={4}
          data-autofocus
          autoFocus
          spellCheck={false}
          classNames={{ input: 'mono' }}
          value={pasted}
          onChange={(e) => paste(e.target.value)}
        />
        {lines && <ManyUrls urls={lines} />}
        {/^https?:\/\/\S+$/i.test(pasted.trim()) && <Senders url={pasted.trim()} />}
        {!lines && place === null && <Notice calm>This platform has no slot for such a text.</Notice>}
        {!lines && trial.error && <Notice>{trial.error.message}</Notice>}
        {!lines && sent && (
          <>
            <section aria-labelledby="sends">
              <div className={css.headline}>
                <h2 id="sends">The click opens</h2>
                <span style={{ flex: 1 }} />
                <RibbonLegend />
              </div>
              <div className={css.ribbon} data-testid="bench-ribbon">
                <Ribbon segments={sent.ribbon} />
              </div>
            </section>
            <section aria-labelledby="line">
              <h2 id="line">A report reads it as</h2>
              <ReportLine line={sent.line} />
            </section>
          </>
        )}
        {!lines && (
          <section aria-labelledby="slots">
            <h2 id="slots">What each level says</h2>
            <div className={css.slots}>
              <SlotInputs document={document} texts={texts} placed={place} onChange={put} />
            </div>
          </section>
        )}
        {!lines && sent && (
          <div className={css.two}>
            <section aria-labelledby="arrives">
              <h2 id="arrives">What arrives</h2>
              <Pairs pairs={sent.arrival} />
            </section>
            <section aria-labelledby="trail">
              <h2 id="trail">The trail</h2>
              <Trail trail={sent.trail} backgroundUrl={sent.backgroundUrl} />
            </section>
          </div>
        )}
      </div>
    </div>
  );
}

/** What was pasted, in the slot that it looks made for, and nothing else; null: the platform has none for it. */
function putInPlace(document: Document, text: string): Texts | null {
  const at = text === '' ? null : placed(document, text);
  return at && alone(document, at.level, at.slot, text.trim());
}

/** The pasted text in its slot, a landing page beneath it where it is none itself, and nothing else. */
function alone(document: Document, level: string, slot: string, text: string): Texts {
  const ad = document.levels.at(-1)!.id;
  const page: Texts = slot === 'landing' ? {} : { [ad]: { landing: 'https://shop.example/page?lang=en' } };
  return { ...page, [level]: { ...page[level], [slot]: text } };
}
