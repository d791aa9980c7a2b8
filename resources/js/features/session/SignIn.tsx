import { Button, Modal, PasswordInput, Stack, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { onSessionEnd, signIn } from '../../api/client';
import { Notice } from '../../components/Notice';
import css from './signin.module.css';

export function SignIn({ onDone }: { onDone: () => void }) {
  return (
    <main className={css.page}>
      <div className={css.band} aria-hidden>
        <i />
        <i />
        <i />
        <i />
      </div>
      <div className={css.form}>
        <h1 className={css.name}>Vestigon</h1>
        <p className="quiet">Every click tells the same, agreed truth.</p>
        <SignInForm onDone={onDone} />
      </div>
    </main>
  );
}

/** Over the page when the session has ended: what was typed below stays. */
export function SignInAgain() {
  const [ended, setEnded] = useState(false);
  useEffect(() => onSessionEnd(() => setEnded(true)), []);
  return (
    <Modal opened={ended} onClose={() => setEnded(false)} title="Your session has ended" centered>
      <p className="quiet" style={{ marginTop: 0 }}>
        Sign in again. What you typed is still here.
      </p>
      <SignInForm onDone={() => setEnded(false)} />
    </Modal>
  );
}

function SignInForm({ onDone }: { onDone: () => void }) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await signIn(email, password);
      onDone();
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form onSubmit={(e) => void submit(e)}>
      <Stack gap="sm">
        <TextInput label="E-mail address" type="email" autoComplete="username" required value={email} onChange={(e) => setEmail(e.target.value)} autoFocus />
        <PasswordInput label="Password" autoComplete="current-password" required value={password} onChange={(e) => setPassword(e.target.value)} />
        {problem && <Notice>{problem}</Notice>}
        <Button type="submit" loading={busy}>
          Sign in
        </Button>
      </Stack>
    </form>
  );
}
