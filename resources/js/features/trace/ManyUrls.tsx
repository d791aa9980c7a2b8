import { Button, Loader } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many, num } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { saved } from '../../lib/saved';
import { useHere } from '../../lib/useClient';
import { countsOf, kindOf, KINDS, MOST, type Kind, type Read } from './many';
import css from './trace.module.css';

const SHOWN = 300;

/** Many URLs at once: whose click each can be, and how many are nobody's that is known. */
export function ManyUrls({ urls }: { urls: readonly string[] }) {
  const { client, to } = useHere();
  const [only, setOnly] = useState<Kind | null>(null);
  const path = { client: client.id };
  const asked = urls.slice(0, MOST);
  const read = useQuery({
    queryKey: keyOf('senders', client.id, asked),
    queryFn: () => data(api.POST('/clients/{client}/urls/many', { params: { path }, body: { urls: asked } })),
    retry: false,
    staleTime: Infinity,
  });
  const sheet = useMutation({
    mutationFn: () =>
      saved(
        api.POST('/clients/{client}/urls/many/file', { params: { path }, body: { urls: asked }, parseAs: 'blob' }),
        'urls.xlsx',
      ),
  });
  if (read.error) return <Notice>{read.error.message}</Notice>;
  if (!read.data) {
    return (
      <p className={css.reading}>
        <Loader size="xs" /> {many(asked.length, 'line')} are read back
      </p>
    );
  }
  const shown = read.data.items.filter((item) => only === null || kindOf(item) === only);
  return (
    <section aria-labelledby="many">
      <h2 id="many">Whose clicks they can be</h2>
      {urls.length > MOST && (
        <Notice>
          Of {num(urls.length)} lines the first {num(MOST)} are read.
        </Notice>
      )}
      {sheet.error && <Notice>{sheet.error.message}</Notice>}
      <div className={css.kinds}>
        {countsOf(read.data.items).map(([kind, n]) => (
          <button
            key={kind}
            type="button"
            aria-pressed={only === kind}
            data-kind={kind}
            onClick={() => setOnly(only === kind ? null : kind)}
          >
            <b className="num">{num(n)}</b> {KINDS[kind]}
          </button>
        ))}
        <span style={{ flex: 1 }} />
        <Button size="compact-xs" variant="default" loading={sheet.isPending} onClick={() => sheet.mutate()}>
          All as XLSX
        </Button>
      </div>
      <ol className={css.many} aria-label="URLs, and whose they can be">
        {shown.slice(0, SHOWN).map((item, i) => (
          <li key={i} data-kind={kindOf(item)}>
            <span className="mono" title={item.url}>
              {item.url}
            </span>
            <Whose item={item} to={to} />
          </li>
        ))}
      </ol>
      {shown.length > SHOWN && <p className="quiet">and {num(shown.length - SHOWN)} more, in the sheet</p>}
    </section>
  );
}

function Whose({ item, to }: { item: Read; to: (page: string) => string }) {
  const kind = kindOf(item);
  const sender = item.sender;
  if (sender) {
    return (
      <span>
        <Link to={to(`trace/${sender.node}`)}>{sender.path.slice(1).join(' › ')}</Link>
        <span className="quiet">
          {sender.platform}
          {kind === 'several' && ` · or ${num(item.ways - 1)} more`}
          {Object.entries(sender.values).map(([field, value]) => ` · ${field} ${value}`)}
        </span>
      </span>
    );
  }
  return item.link ? (
    <span>
      <Link to={to(`links?at=${item.link.id}`)}>{item.link.title || 'a link without a name'}</Link>
    </span>
  ) : (
    <span className="quiet">{KINDS[kind]}</span>
  );
}
