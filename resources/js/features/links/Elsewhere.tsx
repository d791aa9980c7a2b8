import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Schema } from '../../api/client';
import { heading } from './bench';
import type { Change } from './Sight';
import css from './links.module.css';

/** Where a link is to lead from now on, and why; its short address stays what it is. */
export function Elsewhere({
  link,
  keys,
  isKeeping,
  onKeep,
  onLeave,
}: {
  link: Schema['Link'];
  keys: readonly string[];
  isKeeping: boolean;
  onKeep: (to: Change) => void;
  onLeave: () => void;
}) {
  const [landing, setLanding] = useState(link.landing);
  const [pairs, setPairs] = useState<Record<string, string>>(link.pairs);
  const [why, setWhy] = useState('');
  return (
    <form
      className={css.elsewhere}
      onSubmit={(event) => {
        event.preventDefault();
        onKeep({ landing, pairs, why });
      }}
    >
      <TextInput
        size="xs"
        label="landing page"
        autoFocus
        value={landing}
        classNames={{ input: 'mono' }}
        onChange={(e) => setLanding(e.target.value)}
      />
      <div className={css.pairs}>
        {[...new Set([...keys, ...Object.keys(link.pairs)])].map((key) => (
          <TextInput
            key={key}
            size="xs"
            label={heading(key)}
            value={pairs[key] ?? ''}
            classNames={{ input: 'mono' }}
            onChange={(e) => setPairs({ ...pairs, [key]: e.target.value })}
          />
        ))}
      </div>
      <TextInput size="xs" label="why" value={why} onChange={(e) => setWhy(e.target.value)} />
      <div className={css.acts}>
        <Button type="submit" size="compact-xs" loading={isKeeping}>
          Lead there from now on
        </Button>
        <Button size="compact-xs" variant="subtle" onClick={onLeave}>
          Leave it as it is
        </Button>
      </div>
    </form>
  );
}
