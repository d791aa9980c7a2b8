import { Button, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { moment } from '../../lib/moments';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { ClientForm } from './ClientForm';
import { Connections } from './Connections';
import { Sites } from './Sites';
import css from './people.module.css';

type Role = Schema['Role'];

/** What each role may do; the more, the wider its bar. */
const ROLES: { value: Role; label: string; may: string[] }[] = [
  { value: 'viewer', label: 'viewer', may: ['look'] },
  { value: 'reviewer', label: 'reviewer', may: ['look', 'say yes to changes'] },
  { value: 'editor', label: 'editor', may: ['look', 'plan, import, draft, apply'] },
  {
    value: 'owner',
    label: 'owner',
    may: ['look', 'say yes to changes', 'plan, import, draft, apply', 'people, rules'],
  },
];

export default function PeoplePage() {
  const { client } = useHere();
  const path = { client: client.id };
  const people = useQuery({
    queryKey: keyOf('people', client.id),
    queryFn: () => data(api.GET('/clients/{client}/people', { params: { path } })),
  });
  const told = useQuery({
    queryKey: keyOf('client', client.id),
    queryFn: () => data(api.GET('/clients/{client}', { params: { path } })),
  });
  const [kept, setKept] = useState(false);
  if (people.error) return <Notice>{people.error.message}</Notice>;
  if (!people.data || !told.data) return null;
  return (
    <div className={css.page}>
      <section aria-labelledby="people">
        <h1 id="people">Who works on {client.name}</h1>
        <Members members={people.data.members} />
        <Invited invited={people.data.invited} />
        <Invite />
        <Connections />
        <Sites />
      </section>
      <section aria-labelledby="client">
        <h2 id="client">The client</h2>
        <ClientForm
          is={told.data}
          words="Keep"
          on={(body) => api.PUT('/clients/{client}', { params: { path }, body })}
          onDone={() => setKept(true)}
        />
        {kept && <Notice calm>Kept. Addresses stay as they were.</Notice>}
      </section>
    </div>
  );
}

function Members({ members }: { members: Schema['People']['members'] }) {
  const { client, session } = useHere();
  const changed = useChanged();
  const change = useMutation({
    mutationFn: ({ member, role }: { member: number; role: Role | null }) => {
      const path = { client: client.id, member };
      return role === null
        ? data(api.DELETE('/clients/{client}/people/{member}', { params: { path } }))
        : data(api.PUT('/clients/{client}/people/{member}', { params: { path }, body: { role } }));
    },
    onSuccess: (_, { member }) => (member === session.user.id ? window.location.assign('/') : changed('people')),
  });
  return (
    <>
      <table className={css.table}>
        <thead>
          <tr>
            <th scope="col">member</th>
            <th scope="col">role</th>
            <th scope="col">may</th>
            <th scope="col">
              <span className="visually-hidden">take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {members.map((m) => (
            <tr key={m.id}>
              <td>
                <b>{m.name}</b> {m.id === session.user.id && <span className="quiet">you</span>}
                <br />
                <span className="quiet">
                  {m.email}
                  {m.secondFactor && ' · with a second factor'}
                </span>
              </td>
              <td>
                <RoleSelect
                  label={`role of ${m.name}`}
                  value={m.role}
                  onChange={(role) => change.mutate({ member: m.id, role })}
                />
              </td>
              <td>
                <May role={m.role} />
              </td>
              <td>
                <Button
                  size="compact-xs"
                  variant="subtle"
                  aria-label={`take ${m.name} out`}
                  onClick={() => change.mutate({ member: m.id, role: null })}
                >
                  Take out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {change.error && <Notice>{change.error.message}</Notice>}
    </>
  );
}

function May({ role }: { role: Role }) {
  const all = ROLES.find((r) => r.value === 'owner')!.may;
  const may = ROLES.find((r) => r.value === role)!.may;
  return (
    <span className={css.may} title={may.join(', ')}>
      {all.map((what) => (
        <i key={what} data-may={may.includes(what)} aria-hidden />
      ))}
      <span className="quiet">{may.slice(1).join(', ') || 'look'}</span>
    </span>
  );
}

function RoleSelect({ label, value, onChange }: { label: string; value: Role; onChange: (role: Role) => void }) {
  return (
    <Select
      size="xs"
      w={110}
      aria-label={label}
      allowDeselect={false}
      data={ROLES}
      value={value}
      onChange={(v) => v && onChange(v as Role)}
    />
  );
}

function Invited({ invited }: { invited: Schema['People']['invited'] }) {
  const { client } = useHere();
  const changed = useChanged();
  const back = useMutation({
    mutationFn: (invitation: number) =>
      api.DELETE('/clients/{client}/invitations/{invitation}', {
        params: { path: { client: client.id, invitation } },
      }),
    onSettled: () => changed('people'),
  });
  if (invited.length === 0) return null;
  return (
    <ul className={css.invited} aria-label="invited">
      {invited.map((i) => (
        <li key={i.id}>
          <b>{i.email}</b> is invited as {i.role}
          <span className="quiet"> until {moment(i.until)}</span>{' '}
          <Button size="compact-xs" variant="subtle" onClick={() => back.mutate(i.id)}>
            Take it back
          </Button>
        </li>
      ))}
    </ul>
  );
}

function Invite() {
  const { client } = useHere();
  const changed = useChanged();
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<Role>('editor');
  const invite = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/invitations', {
          params: { path: { client: client.id } },
          body: { email, role },
        }),
      ),
    onSuccess: () => {
      setEmail('');
      changed('people');
    },
  });
  return (
    <form
      className={css.invite}
      onSubmit={(e) => {
        e.preventDefault();
        invite.mutate();
      }}
    >
      <TextInput
        size="xs"
        label="Invite"
        type="email"
        placeholder="E-mail address"
        required
        value={email}
        onChange={(e) => setEmail(e.target.value)}
      />
      <RoleSelect label="role of who is invited" value={role} onChange={setRole} />
      <Button size="xs" type="submit" loading={invite.isPending}>
        Make a link
      </Button>
      {invite.error && <Notice>{invite.error.message}</Notice>}
      {invite.data && (
        <p className={css.link} role="status">
          Good once, and sent by mail where mail goes out: <span className="mono">{invite.data.link}</span>
        </p>
      )}
    </form>
  );
}
