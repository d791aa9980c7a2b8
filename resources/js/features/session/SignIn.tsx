import { Anchor, Button, Modal, PasswordInput, Stack, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState, type FormEvent, type ReactNode } from 'react';
import { api, askForLink, data, onSessionEnd, signIn } from '../../api/client';
import { Notice } from '../../components/Notice';
import css from './signin.module.css';

export function SignIn({ onDone }: { onDone: () => void }) {
  return (
    <Door line="Every click tells the same, agreed truth.">
      <SignInForm onDone={onDone} />
    </Door>
  );
}

/** The page before one is in. */
export function Door({ line, children }: { line: string; children: ReactNode }) {
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
        <p className="quiet">{line}</p>
        {children}
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

type Step = 'password' | 'code' | 'forgotten';

/** E-mail address and password; then a code, where the person has a second factor; or a link by mail. */
function SignInForm({ onDone }: { onDone: () => void }) {
  const [step, setStep] = useState<Step>('password');
  const [email, setEmail] = useState('');
  if (step === 'code') return <Code onDone={onDone} onBack={() => setStep('password')} />;
  if (step === 'forgotten') return <Forgotten email={email} onBack={() => setStep('password')} />;
  return <Password email={email} onEmail={setEmail} onDone={onDone} onStep={setStep} />;
}

function Password({
  email,
  onEmail,
  onDone,
  onStep,
}: {
  email: string;
  onEmail: (email: string) => void;
  onDone: () => void;
  onStep: (step: Step) => void;
}) {
  const [password, setPassword] = useState('');
  const enter = useMutation({
    mutationFn: () => signIn(email, password),
    onSuccess: (needsCode) => (needsCode ? onStep('code') : onDone()),
  });
  return (
    <Form on={enter.mutate}>
      <TextInput
        label="E-mail address"
        type="email"
        autoComplete="username"
        required
        value={email}
        onChange={(e) => onEmail(e.target.value)}
        data-autofocus
        autoFocus
      />
      <PasswordInput
        label="Password"
        autoComplete="current-password"
        required
        value={password}
        onChange={(e) => setPassword(e.target.value)}
      />
      {enter.error && <Notice>{enter.error.message}</Notice>}
      <Button type="submit" loading={enter.isPending}>
        Sign in
      </Button>
      <Anchor component="button" type="button" size="sm" onClick={() => onStep('forgotten')}>
        Forgotten your password?
      </Anchor>
    </Form>
  );
}

function Code({ onDone, onBack }: { onDone: () => void; onBack: () => void }) {
  const [code, setCode] = useState('');
  const enter = useMutation({
    mutationFn: () => data(api.POST('/session/code', { body: { code } })),
    onSuccess: onDone,
  });
  return (
    <Form on={enter.mutate}>
      <TextInput
        label="Code"
        description="The six digits that your authenticator shows now, or one of your recovery words."
        autoComplete="one-time-code"
        className="mono"
        required
        value={code}
        onChange={(e) => setCode(e.target.value)}
        autoFocus
      />
      {enter.error && <Notice>{enter.error.message}</Notice>}
      <Button type="submit" loading={enter.isPending}>
        Go on
      </Button>
      <Back on={onBack} />
    </Form>
  );
}

function Forgotten({ email: typed, onBack }: { email: string; onBack: () => void }) {
  const [email, setEmail] = useState(typed);
  const ask = useMutation({ mutationFn: () => askForLink(email) });
  return (
    <Form on={ask.mutate}>
      <TextInput
        label="E-mail address"
        description="A link to choose another password goes there."
        type="email"
        autoComplete="username"
        required
        value={email}
        onChange={(e) => setEmail(e.target.value)}
        autoFocus
      />
      {ask.error && <Notice>{ask.error.message}</Notice>}
      {ask.data && <Notice calm>{ask.data.message}</Notice>}
      <Button type="submit" loading={ask.isPending}>
        Send the link
      </Button>
      <Back on={onBack} />
    </Form>
  );
}

export function Form({ on, children }: { on: () => void; children: ReactNode }) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    on();
  };
  return (
    <form onSubmit={submit}>
      <Stack gap="sm">{children}</Stack>
    </form>
  );
}

function Back({ on }: { on: () => void }) {
  return (
    <Anchor component="button" type="button" size="sm" onClick={on}>
      Back to signing in
    </Anchor>
  );
}
