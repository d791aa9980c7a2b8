import { useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { PasswordLayer } from './PasswordLayer';
import { SecondFactorLayer } from './SecondFactorLayer';
import { SessionsLayer } from './SessionsLayer';
import { told } from './told';
import css from './you.module.css';
import { keyOf } from '../../lib/queries';
import { moment } from '../../lib/moments';

/**
 * A person's own way in, drawn as what somebody else would have to get through: solid where it holds, hatched where
 * nothing is.
 */
export default function YouPage() {
  const { session } = useHere();
  const person = useQuery({ queryKey: keyOf('person'), queryFn: () => data(api.GET('/person')) });
  if (person.error) return <Notice>{person.error.message}</Notice>;
  if (!person.data) return null;
  return (
    <div className={css.page}>
      <section className={css.main}>
        <h1>{session.user.name}</h1>
        <p className="quiet">{session.user.email} · what stands between a stranger and what you may do</p>
        <div className={css.layers}>
          <PasswordLayer />
          <SecondFactorLayer left={person.data.recoveryWords} />
          <SessionsLayer sessions={person.data.sessions} minutes={person.data.minutes} />
        </div>
        <p className={css.behind}>Behind it: {session.clients.map((c) => `${c.name} as ${c.role}`).join(', ')}.</p>
      </section>
      <aside className={css.lately} aria-label="what happened lately">
        <h2>Lately</h2>
        <ol>
          {person.data.lately.map((l, i) => (
            <li key={i} data-bad={l.what.endsWith('failed') || undefined}>
              <span>{told(l)}</span>
              <span className="quiet">
                {moment(l.at)}
                {l.address && ` · ${l.address}`}
              </span>
            </li>
          ))}
        </ol>
      </aside>
    </div>
  );
}
