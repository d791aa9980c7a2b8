import { Modal, TextInput, UnstyledButton } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data } from '../../api/client';
import { State } from '../../components/State';
import { useHere } from '../../lib/useClient';
import css from './shell.module.css';
import { keyOf } from '../../lib/queries';

interface Hit {
  id: string;
  name: string;
  kind: string;
  page: string;
  state?: 'proven' | 'broken' | 'untracked' | null;
}

const PAGES: Hit[] = [
  'audit',
  'plan',
  'accounts',
  'trace',
  'changes',
  'arrivals',
  'results',
  'feeds',
  'links',
  'platforms',
].map((page) => ({
  id: page,
  name: page[0]!.toUpperCase() + page.slice(1),
  kind: 'section',
  page,
}));

const NUMBERS: Hit = {
  id: 'numbers',
  name: 'Numbers and names',
  kind: 'what any report’s numbers are of',
  page: 'results/numbers',
};

/**
 * Finds anything of the client by name or number.
 *
 * In place of Mantine's Spotlight, one more package that filters what it holds: here the server finds, as it is typed.
 */
export function Finder({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const [words, setWords] = useState('');
  const [on, setOn] = useState(0);
  const found = useQuery({
    queryKey: keyOf('search', client.id, words),
    queryFn: () =>
      data(api.GET('/clients/{client}/search', { params: { path: { client: client.id }, query: { q: words } } })),
    enabled: opened && words.trim() !== '' && words.length <= 100,
    placeholderData: keepPreviousData,
  });
  const pages = [...PAGES, NUMBERS].filter((p) => p.name.toLowerCase().startsWith(words.trim().toLowerCase()));
  const url = /^https?:\/\/\S+$/i.test(words.trim()) ? words.trim() : null;
  const apart: Hit[] = url
    ? [{ id: 'url', name: 'Take this URL apart', kind: url, page: `trace?url=${encodeURIComponent(url)}` }]
    : [];
  const hits: Hit[] =
    words.trim() === ''
      ? PAGES
      : [
          ...apart,
          ...pages,
          ...(found.data?.nodes ?? []).map((n) => ({
            id: `n${n.id}`,
            name: n.name,
            kind: `${n.level} ${n.externalId}`,
            page: n.isAd ? `trace/${n.id}` : `accounts/${n.account}?at=${n.id}`,
            state: n.state,
          })),
          ...(found.data?.links ?? []).map((l) => ({
            id: `l${l.id}`,
            name: l.title || l.short || 'a link',
            kind: `link${l.short ? ` ${l.short.replace(/^https?:\/\//, '')}` : ''}`,
            page: `links?at=${l.id}`,
          })),
          ...(found.data?.feeds ?? []).map((f) => ({
            id: `f${f.id}`,
            name: f.name,
            kind: 'product list',
            page: `feeds/${f.id}`,
          })),
          ...(found.data?.changes ?? []).map((c) => ({
            id: `c${c.id}`,
            name: c.title,
            kind: `change, ${c.status}`,
            page: `changes/${c.id}`,
          })),
        ];
  const close = () => {
    setWords('');
    setOn(0);
    onClose();
  };
  const go = (hit: Hit | undefined) => {
    if (!hit) return;
    close();
    void navigate(to(hit.page));
  };
  return (
    <Modal opened={opened} onClose={close} withCloseButton={false} size="lg" yOffset="10vh" title="Find anything">
      <TextInput
        data-autofocus
        aria-label="find"
        placeholder="A campaign, an ad, a number, a change, a link, a URL …"
        value={words}
        onChange={(e) => {
          setWords(e.target.value);
          setOn(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
            e.preventDefault();
            setOn((i) => Math.max(0, Math.min(hits.length - 1, i + (e.key === 'ArrowDown' ? 1 : -1))));
          }
          if (e.key === 'Enter') go(hits[on]);
        }}
      />
      <div className={css.found} role="listbox" aria-label="found">
        {hits.map((hit, i) => (
          <UnstyledButton
            key={hit.id}
            className={css.hit}
            data-on={i === on}
            role="option"
            aria-selected={i === on}
            onMouseMove={() => setOn(i)}
            onClick={() => go(hit)}
          >
            <b>{hit.name}</b>
            {hit.state && <State state={hit.state} wordless />}
            <span className="quiet">{hit.kind}</span>
          </UnstyledButton>
        ))}
        {hits.length === 0 && found.isFetched && (
          <div className={`${css.hit} quiet`}>Nothing is called that. Try the beginning of a name, or a number.</div>
        )}
      </div>
    </Modal>
  );
}
