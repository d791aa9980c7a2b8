import { Anchor, Button, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { acceptLink, api, data, lookAtLink, signIn } from '../../api/client';
import { Notice } from '../../components/Notice';
import { NewPassword } from './NewPassword';
import { keyOf } from '../../lib/queries';
import { Door, Form } from './SignIn';

/** Where an invitation leads. What the link holds stands behind #, which no server sees. */
export default function Join() {
  const [token] = useState(() => window.location.hash.slice(1));
  const link = useQuery({ queryKey: keyOf('link', token), queryFn: () => lookAtLink(token), enabled: token !== '' });
  // Not before: two first answers side by side would each begin a session, and the token of one isn't the other's.
  const session = useQuery({
    queryKey: keyOf('session'),
    queryFn: () => data(api.GET('/session')),
    enabled: link.isSuccess,
  });
  const me = session.data?.user;
  if (token === '' || link.error) {
    return (
      <Door line="Come in.">
        <Notice action={<Anchor href="/">Sign in</Anchor>}>
          {link.error?.message ?? 'This link is not whole. Open it again, or ask for a new one.'}
        </Notice>
      </Door>
    );
  }
  if (!link.data || session.isPending) return null;
  const { client, role, by, email } = link.data;
  return (
    <Door line={client ? `${client}, as ${role === 'owner' || role === 'editor' ? 'an' : 'a'} ${role}.` : 'Begin.'}>
      {by && <p style={{ margin: 0 }}>{by} would like you to work on it here.</p>}
      {!client && <p style={{ margin: 0 }}>You are the first here. You make the clients, and invite the others.</p>}
      {me && client && (email === null || email === me.email) ? (
        <AsMe token={token} name={me.name} />
      ) : (
        <AsNew token={token} email={email} />
      )}
    </Door>
  );
}

function AsMe({ token, name }: { token: string; name: string }) {
  const join = useMutation({
    mutationFn: () => data(api.POST('/invitations/join', { body: { token } })),
    onSuccess: ({ slug }) => window.location.assign(`/${slug}/accounts`),
  });
  return (
    <Form on={join.mutate}>
      {join.error && <Notice>{join.error.message}</Notice>}
      <Button type="submit" loading={join.isPending} autoFocus>
        Join as {name}
      </Button>
    </Form>
  );
}

function AsNew({ token, email }: { token: string; email: string | null }) {
  const [name, setName] = useState('');
  const [address, setAddress] = useState(email ?? '');
  const [password, setPassword] = useState('');
  const come = useMutation({
    mutationFn: async () => {
      await acceptLink({ token, name, email: address, password });
      await signIn(address, password);
    },
    onSuccess: () => window.location.assign('/'),
  });
  return (
    <Form on={come.mutate}>
      <TextInput
        label="Your name"
        autoComplete="name"
        required
        maxLength={100}
        value={name}
        onChange={(e) => setName(e.target.value)}
        autoFocus
      />
      <TextInput
        label="E-mail address"
        type="email"
        autoComplete="username"
        required
        readOnly={email !== null}
        value={address}
        onChange={(e) => setAddress(e.target.value)}
      />
      <NewPassword label="Password" value={password} onText={setPassword} />
      {come.error && <Notice action={<Anchor href="/">Sign in</Anchor>}>{come.error.message}</Notice>}
      <Button type="submit" loading={come.isPending}>
        Come in
      </Button>
    </Form>
  );
}
