import { Anchor, Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { resetPassword } from '../../api/client';
import { Notice } from '../../components/Notice';
import { NewPassword } from './NewPassword';
import { Door, Form } from './SignIn';

/** Where the link of a mail leads: another password. What the link holds stands behind #, which no server sees. */
export default function Reset() {
  const [held] = useState(() => new URLSearchParams(window.location.hash.slice(1)));
  const [password, setPassword] = useState('');
  const email = held.get('email') ?? '';
  const token = held.get('token') ?? '';
  const change = useMutation({ mutationFn: () => resetPassword(email, token, password) });
  return (
    <Door line="Another password.">
      {change.data ? (
        <Notice calm action={<Anchor href="/">Sign in</Anchor>}>
          {change.data.message}
        </Notice>
      ) : email === '' || token === '' ? (
        <Notice action={<Anchor href="/">Sign in</Anchor>}>
          This link is not whole. Open it from the mail again, or ask for a new one.
        </Notice>
      ) : (
        <Form on={change.mutate}>
          <p className="quiet" style={{ margin: 0 }}>
            for {email}
          </p>
          <NewPassword label="New password" value={password} onText={setPassword} autoFocus />
          {change.error && <Notice>{change.error.message}</Notice>}
          <Button type="submit" loading={change.isPending}>
            Change it
          </Button>
        </Form>
      )}
    </Door>
  );
}
