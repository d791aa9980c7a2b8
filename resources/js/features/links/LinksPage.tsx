import { TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useInfiniteQuery, useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Bench } from './Bench';
import { List } from './List';
import { Sight } from './Sight';
import css from './links.module.css';

/** Links for what no platform fills: put together on the bench, and below it those that there are. */
export default function LinksPage() {
  const { client, mayEdit } = useHere();
  const [q, setQ] = useState('');
  const [asked] = useDebouncedValue(q, 150);
  const [params, setParams] = useSearchParams();
  const picked = Number(params.get('at')) || null;
  const setPicked = useCallback(
    (link: number | null) => setParams(link === null ? {} : { at: String(link) }, { replace: true }),
    [setParams],
  );
  const [gone, setGone] = useState<{ id: number; title: string } | null>(null);
  const search = useRef<HTMLInputElement>(null);
  const changed = useChanged();
  const putBack = useMutation({
    mutationFn: (link: number) =>
      data(api.POST('/clients/{client}/links/{link}/return', { params: { path: { client: client.id, link } } })),
    onSuccess: (link) => {
      changed('links');
      setGone(null);
      setPicked(link.id);
    },
  });
  const links = useInfiniteQuery({
    queryKey: keyOf('links', client.id, asked),
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/clients/{client}/links', {
          params: {
            path: { client: client.id },
            query: { ...(asked ? { q: asked } : {}), ...(pageParam ? { before: pageParam } : {}) },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.more ? last.items.at(-1)?.id : undefined),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  });
  const isHere = links.data?.pages.some((page) => page.items.some((link) => link.id === picked));
  const elsewhere = useQuery({
    queryKey: keyOf('link-whole', client.id, picked),
    queryFn: () =>
      data(api.GET('/clients/{client}/links/{link}', { params: { path: { client: client.id, link: picked! } } })),
    enabled: picked !== null && isHere === false,
    retry: false,
  });
  useKeys(
    useMemo(
      () => ({
        '/': (event) => {
          event.preventDefault();
          search.current?.focus();
        },
        Escape: () => setPicked(null),
      }),
      [setPicked],
    ),
  );
  if (links.error) return <Notice>{links.error.message}</Notice>;
  const pages = links.data?.pages;
  if (!pages) return null;
  const items = pages.flatMap((page) => page.items);
  const one = items.find((link) => link.id === picked) ?? elsewhere.data;
  return (
    <div className={css.page} data-open={one !== undefined || undefined}>
      <div className={css.main}>
        {mayEdit && <Bench keys={pages[0]!.keys} onPick={setPicked} />}
        <section className={css.made} aria-labelledby="made">
          <header>
            <h2 id="made">
              {asked
                ? `${many(items.length, 'link')}${links.hasNextPage ? ' or more' : ''} with “${asked}”`
                : 'Links that there are'}
            </h2>
            <span role="status">
              {gone && (
                <>
                  {gone.title || 'A link'} is gone; its short address says so.{' '}
                  <button type="button" className={css.link} onClick={() => putBack.mutate(gone.id)}>
                    put it back
                  </button>
                </>
              )}
            </span>
            <span style={{ flex: 1 }} />
            {['csv', 'xlsx'].map((kind) => (
              <a key={kind} href={`/api/v1/clients/${client.id}/links/file?kind=${kind}`} download>
                {kind.toUpperCase()}
              </a>
            ))}
            <TextInput
              ref={search}
              size="xs"
              w={200}
              aria-label="links with these words"
              placeholder="words, a page, a short word"
              rightSection={<kbd>/</kbd>}
              value={q}
              onChange={(e) => setQ(e.target.value)}
              onKeyDown={(e) => e.key === 'Escape' && (setQ(''), e.currentTarget.blur())}
            />
          </header>
          <List
            links={items}
            currency={pages[0]!.currency}
            one={picked}
            onPick={setPicked}
            onMore={links.hasNextPage && !links.isFetching ? () => void links.fetchNextPage() : undefined}
          />
        </section>
      </div>
      {one && <Sight key={one.id} link={one} keys={pages[0]!.keys} onClose={() => setPicked(null)} onGone={setGone} />}
    </div>
  );
}
