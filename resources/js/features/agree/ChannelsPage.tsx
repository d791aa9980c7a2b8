import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { Flows } from './Flows';
import { Ladder } from './Ladder';
import { Rooms } from './Rooms';
import { Saving } from './Saving';
import { useAgreement } from './useAgreement';
import { asked, type Channels } from './channels';
import css from './agree.module.css';

/** In which channel a click is counted: rules one below the other, the first that holds counts. */
export default function ChannelsPage() {
  const { client, mayEdit } = useHere();
  const of = useAgreement<Channels>('channels');
  const path = { client: client.id };
  const [click, setClick] = useState<Record<string, string>>({});
  const isTried = Object.values(click).some((v) => v !== '');
  const caught = useQuery({
    queryKey: keyOf('caught', client.id),
    queryFn: () => data(api.GET('/clients/{client}/agreements/channels/caught', { params: { path } })),
  });
  const document = of.isEdited ? (of.document as unknown as Record<string, unknown>) : undefined;
  const trial = useQuery({
    queryKey: keyOf('channel-trial', client.id, click, document),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/agreements/channels/trial', {
          params: { path },
          body: { document, values: click },
        }),
      ),
    enabled: isTried,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const shift = useQuery({
    queryKey: keyOf('shift', client.id, document),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/agreements/channels/shift', { params: { path }, body: { document: document! } }),
      ),
    enabled: of.isEdited,
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (of.error) return <Notice>{of.error.message}</Notice>;
  if (!of.saved || !of.document) return null;
  const tried = isTried ? trial.data : undefined;
  return (
    <div className={css.page}>
      <Rooms>
        <span style={{ flex: 1 }} />
        <Saving {...of} saved={of.saved} mayEdit={mayEdit} />
      </Rooms>
      <div className={css.channels}>
        <Ladder
          channels={of.document}
          caught={of.isEdited ? undefined : caught.data}
          tried={tried}
          onChange={mayEdit ? of.set : undefined}
        />
        <aside className={css.beside}>
          <section aria-label="try a click">
            <h2>Try a click</h2>
            {asked(of.document).map((key) => (
              <label key={key} className={css.value}>
                <span className="mono">{key}</span>
                <input
                  className={`${css.input} mono`}
                  value={click[key] ?? ''}
                  spellCheck={false}
                  onChange={(e) => setClick({ ...click, [key]: e.target.value })}
                />
              </label>
            ))}
            {tried && (
              <p data-testid="counted">
                Counted as <b>{tried.channel}</b>
                <span className="quiet">: {tried.why}</span>
              </p>
            )}
          </section>
          {(trial.error ?? shift.error) && <Notice>{(trial.error ?? shift.error)!.message}</Notice>}
          {of.isEdited && shift.data && <Flows shift={shift.data} />}
        </aside>
      </div>
    </div>
  );
}
