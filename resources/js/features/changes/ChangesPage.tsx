import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { ChangeStory } from './ChangeStory';
import { STATUS } from './status';
import css from './changes.module.css';

export default function ChangesPage() {
  const { client, to } = useHere();
  const params = useParams();
  const changes = useQuery({ queryKey: ['changes', client.id], queryFn: () => data(api.GET('/clients/{client}/changes', { params: { path: { client: client.id } } })) });
  if (changes.error) return <Notice>{changes.error.message}</Notice>;
  if (!changes.data) return null;
  if (changes.data.items.length === 0) {
    return (
      <Empty title="No change yet" action={<Link to={to('accounts')}>Open the accounts</Link>}>
        A change brings an account in line with the plan: worked out first, looked at, then applied and read back. Start one in the accounts with <kbd>c</kbd>.
      </Empty>
    );
  }
  const id = params.change ? Number(params.change) : changes.data.items[0]!.id;
  return (
    <div className={css.page}>
      <nav className={css.list} aria-label="changes, newest first">
        {changes.data.items.map((c) => (
          <Link key={c.id} to={to(`changes/${c.id}`)} className={`${css.item} ${c.id === id ? css.on : ''}`} aria-current={c.id === id ? 'page' : undefined}>
            <b>{c.title}</b>
            <span>
              <em data-status={c.status}>{STATUS[c.status]}</em> · {c.writes} writes
            </span>
            <span className="quiet">
              {c.author}, {when(c)}
            </span>
          </Link>
        ))}
      </nav>
      <ChangeStory key={id} id={id} />
    </div>
  );
}

function when(change: Schema['Changes']['items'][number]): string {
  return change.at ? new Date(change.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' }) : '';
}
