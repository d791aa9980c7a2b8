import { useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { Ribbon } from '../../components/Ribbon';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { makersOf, type Trouble } from './words';
import css from './audit.module.css';

/** What the ad that it arrives from most often sends today, and which text of it makes the key. */
export function Made({ node, about }: { node: number; about: NonNullable<Trouble['about']> }) {
  const { client } = useHere();
  const trace = useQuery({
    queryKey: keyOf('trace', node, {}, []),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/nodes/{node}/trace', {
          params: { path: { client: client.id, node } },
          body: { context: {}, texts: [] },
        }),
      ),
    retry: false,
  });
  if (!trace.data) return null;
  const makers = makersOf(trace.data.ribbon, about.key);
  return (
    <section className={css.made} aria-labelledby="made">
      <h3 id="made">what the ad of most of them sends today</h3>
      <Ribbon segments={trace.data.ribbon} bad={about.key ? [about.key] : []} label="the URL that is sent today" />
      {about.key !== '' && (
        <p className="quiet">
          {makers.length > 0
            ? `${about.key} is made by ${makers.join(' and ')}.`
            : `No text of it says ${about.key} today: it was changed since, or something on the way adds it.`}
        </p>
      )}
    </section>
  );
}
