import { Textarea } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf } from '../../lib/queries';
import { Pairs } from '../../components/Pairs';
import { useHere } from '../../lib/useClient';
import platforms from '../platforms/platforms.module.css';
import { Trail } from '../trace/Trail';
import type { Draft } from './useTrackers';

interface Props {
  draft: Draft;
  url: string;
  onUrl: (url: string) => void;
}

/** Where a click comes out, while the tracker is being written. */
export function Way({ draft, url, onUrl }: Props) {
  const { client } = useHere();
  const { host, parameter, forwards, adds } = draft;
  const trial = useQuery({
    queryKey: keyOf('tracker-trial', client.id, host, parameter, forwards, adds, url),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/trackers/trial', {
          params: { path: { client: client.id } },
          body: { host, parameter, forwards, adds, url },
        }),
      ),
    enabled: url !== '',
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  });
  return (
    <aside className={platforms.trial} aria-label="try it">
      <h2>Try it</h2>
      <Textarea
        label="A click’s URL"
        placeholder="Paste one that passes it"
        autosize
        minRows={3}
        maxRows={9}
        spellCheck={false}
        styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)', fontSize: 12.5 } }}
        value={url}
        onChange={(e) => onUrl(e.target.value)}
      />
      {trial.error && <Notice>{trial.error.message}</Notice>}
      {trial.data && (
        <>
          <Trail trail={trial.data.trail} />
          <Pairs pairs={trial.data.arrival} />
        </>
      )}
    </aside>
  );
}
