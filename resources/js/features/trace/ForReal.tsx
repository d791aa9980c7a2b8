import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { RealClick } from '../changes/Clicked';
import css from './trace.module.css';

/** Clicks the live ad and follows the click to its page: two answers, of which one can fail without the other. */
export function ForReal({ node }: { node: number }) {
  const { client } = useHere();
  const click = useMutation({
    mutationFn: () =>
      data(api.POST('/clients/{client}/nodes/{node}/click', { params: { path: { client: client.id, node } } })),
  });
  const go = click.mutate;
  useKeys(useMemo(() => ({ g: () => go() }), [go]));
  return (
    <section aria-labelledby="real">
      <div className={css.headline}>
        <h2 id="real">Clicked for real</h2>
        <Button
          size="compact-xs"
          variant="default"
          loading={click.isPending}
          onClick={() => go()}
          rightSection={<kbd>g</kbd>}
        >
          {click.data ? 'Click again' : 'Click the live ad'}
        </Button>
        {!click.data && (
          <span className="quiet">
            What is live, not what is tried here: did every hop answer, and did everything arrive?
          </span>
        )}
      </div>
      {click.error && <Notice>{click.error.message}</Notice>}
      {click.data && <RealClick click={click.data} />}
    </section>
  );
}
