import { Button, PasswordInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { NewPassword } from './NewPassword';
import { Layer } from './Layer';
import { Form } from './SignIn';
import { useChanged } from '../../lib/queries';

export function PasswordLayer() {
  const changed = useChanged();
  const [open, setOpen] = useState(false);
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const change = useMutation({
    mutationFn: () => data(api.PUT('/person/password', { body: { current, password } })),
    onSuccess: () => {
      [setCurrent, setPassword].forEach((set) => set(''));
      setOpen(false);
      changed('person');
    },
  });
  return (
    <Layer
      name="Password"
      holds
      says={change.data ? `Changed. ${change.data.ended} other sessions ended.` : 'Something you know.'}
      action={
        <Button size="xs" variant="default" onClick={() => setOpen(!open)} aria-expanded={open}>
          Change it
        </Button>
      }
    >
      {open && (
        <Form on={change.mutate}>
          <PasswordInput
            label="The one you have now"
            autoComplete="current-password"
            required
            value={current}
            onChange={(e) => setCurrent(e.target.value)}
            autoFocus
          />
          <NewPassword
            label="The new one"
            description="At least ten characters. All your other sessions end."
            value={password}
            onText={setPassword}
          />
          {change.error && <Notice>{change.error.message}</Notice>}
          <Button type="submit" size="xs" loading={change.isPending}>
            Change the password
          </Button>
        </Form>
      )}
    </Layer>
  );
}
