import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many } from '../../lib/numbers';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';

/** Sheets that somebody has begun to bring in, and that wait. */
export function OpenIntakes() {
  const { client, to } = useHere();
  const open = useQuery({
    queryKey: keyOf('intakes', client.id),
    queryFn: () => data(api.GET('/clients/{client}/intakes', { params: { path: { client: client.id } } })),
  });
  const first = open.data?.items[0];
  if (!first) return null;
  return (
    <Notice calm action={<Link to={to(`accounts/in/${first.id}`)}>Go on</Link>}>
      {many(first.files, 'sheet')} of {first.name} {first.files === 1 ? 'waits' : 'wait'} to be looked at
      {open.data!.items.length > 1 && `, and ${open.data!.items.length - 1} more`}. Nothing of it is stored yet.
    </Notice>
  );
}
