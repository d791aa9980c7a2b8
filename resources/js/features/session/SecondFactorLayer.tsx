import { Button, PasswordInput, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { Layer } from './Layer';
import { Form } from './SignIn';
import css from './you.module.css';
import { keyOf, useChanged } from '../../lib/queries';

/** Something one has: an authenticator whose codes change with time (RFC 6238). */
export function SecondFactorLayer({ left }: { left: number }) {
  const on = useHere().session.user.secondFactor;
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState<string[] | null>(null);
  return (
    <Layer
      name="Second factor"
      holds={on}
      says={
        on
          ? `Something you have: codes of your authenticator. ${left} recovery words are left.`
          : 'None yet: a password that somebody else learns is enough.'
      }
      action={
        <Button size="xs" variant={on ? 'default' : 'filled'} onClick={() => setOpen(!open)} aria-expanded={open}>
          {on ? 'Turn it off' : 'Turn it on'}
        </Button>
      }
    >
      {words && <Words words={words} onDone={() => setWords(null)} />}
      {open &&
        (on ? <TurnOff onDone={() => setOpen(false)} /> : <TurnOn onDone={(w) => [setOpen(false), setWords(w)]} />)}
    </Layer>
  );
}

function useRefresh() {
  const changed = useChanged();
  return () => changed('person');
}

function TurnOn({ onDone }: { onDone: (words: string[]) => void }) {
  const refresh = useRefresh();
  const [code, setCode] = useState('');
  const [password, setPassword] = useState('');
  const secret = useQuery({
    queryKey: keyOf('new-second-factor'),
    queryFn: async () => {
      const made = await data(api.POST('/person/second-factor'));
      const { toString } = await import('qrcode');
      return { ...made, picture: await toString(made.address, { type: 'svg', margin: 4, errorCorrectionLevel: 'M' }) };
    },
    gcTime: 0,
    staleTime: Infinity,
  });
  const turnOn = useMutation({
    mutationFn: () => data(api.PUT('/person/second-factor', { body: { code, password } })),
    onSuccess: ({ recoveryWords }) => {
      refresh();
      onDone(recoveryWords);
    },
  });
  if (secret.error) return <Notice>{secret.error.message}</Notice>;
  if (!secret.data) return null;
  return (
    <div className={css.pair}>
      <figure className={css.code}>
        <img
          alt="The secret as a QR code"
          width={172}
          height={172}
          src={`data:image/svg+xml,${encodeURIComponent(secret.data.picture)}`}
        />
        <figcaption>
          or type <span className="mono">{secret.data.secret.replace(/(.{4})/g, '$1 ')}</span>
        </figcaption>
      </figure>
      <Form on={turnOn.mutate}>
        <p className="quiet" style={{ margin: 0 }}>
          Scan it with an authenticator, then type what it shows.
        </p>
        <TextInput
          label="Code"
          autoComplete="one-time-code"
          inputMode="numeric"
          required
          value={code}
          onChange={(e) => setCode(e.target.value)}
          autoFocus
        />
        <PasswordInput
          label="Password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
        {turnOn.error && <Notice>{turnOn.error.message}</Notice>}
        <Button type="submit" size="xs" loading={turnOn.isPending}>
          Turn it on
        </Button>
      </Form>
    </div>
  );
}

function Words({ words, onDone }: { words: string[]; onDone: () => void }) {
  return (
    <Notice
      calm
      action={
        <Button size="xs" variant="default" onClick={onDone}>
          I have them
        </Button>
      }
    >
      Keep these words where your authenticator is not. Each stands in for a code once; they are not shown again.
      <span className={css.words}>
        {words.map((w) => (
          <code key={w}>{w}</code>
        ))}
      </span>
    </Notice>
  );
}

function TurnOff({ onDone }: { onDone: () => void }) {
  const refresh = useRefresh();
  const [password, setPassword] = useState('');
  const turnOff = useMutation({
    mutationFn: () => data(api.DELETE('/person/second-factor', { body: { password } })),
    onSuccess: () => {
      refresh();
      onDone();
    },
  });
  return (
    <Form on={turnOff.mutate}>
      <PasswordInput
        label="Password"
        autoComplete="current-password"
        required
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        autoFocus
      />
      {turnOff.error && <Notice>{turnOff.error.message}</Notice>}
      <Button type="submit" size="xs" loading={turnOff.isPending}>
        Turn it off
      </Button>
    </Form>
  );
}
