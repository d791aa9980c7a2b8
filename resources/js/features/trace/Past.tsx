import { TextInput } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { Place } from '../../components/Place';
import { Ribbon } from '../../components/Ribbon';
import { useHere } from '../../lib/useClient';
import css from './trace.module.css';
import { keyOf } from '../../lib/queries';
import { moment } from '../../lib/moments';

/** What the ad sent on a day in the past, and who had written each of its texts. */
export function Past({ node }: { node: number }) {
  const { client, to } = useHere();
  const [at, setAt] = useState('');
  const then = useQuery({
    queryKey: keyOf('then', node, at),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/nodes/{node}/then', {
          params: { path: { client: client.id, node }, query: { at: new Date(at).toISOString() } },
        }),
      ),
    enabled: at !== '',
    placeholderData: keepPreviousData,
  });
  return (
    <section aria-labelledby="then">
      <div className={css.headline}>
        <h2 id="then">What it sent on</h2>
        <TextInput
          size="xs"
          type="datetime-local"
          aria-label="the moment"
          value={at}
          onChange={(e) => setAt(e.target.value)}
        />
        {at === '' && <span className="quiet">any day since it was first imported</span>}
      </div>
      {at !== '' && then.error && <Notice>{then.error.message}</Notice>}
      {at !== '' && then.data && (
        <div className={css.then}>
          <Ribbon segments={then.data.ribbon} label="click URL then" />
          <ul>
            {then.data.texts.map((t) => (
              <li key={`${t.node} ${t.kind} ${t.custom}`}>
                <span className="quiet">
                  {t.level} <Place kind={t.kind} name={t.custom} />
                </span>
                <span className="mono">{t.text}</span>
                <span className="quiet">
                  since {moment(t.since)}
                  {t.until && `, until ${moment(t.until)}`}
                  {t.change !== null && (
                    <>
                      , by {t.by} in <Link to={to(`changes/${t.change}`)}>change {t.change}</Link>
                    </>
                  )}
                </span>
              </li>
            ))}
            {then.data.texts.length === 0 && <li className="quiet">Nothing is known of it that day.</li>}
          </ul>
        </div>
      )}
    </section>
  );
}
