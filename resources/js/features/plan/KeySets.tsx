import { Button, CloseButton, Menu, Modal, TextInput } from '@mantine/core';
import { useState } from 'react';
import { num } from '../../lib/numbers';
import { Saving } from '../agree/Saving';
import { useAgreement } from '../agree/useAgreement';
import type { Parameter } from './planText';
import css from './plan.module.css';

interface Sets {
  format: string;
  sets: { title: string; about: string; parameters: Parameter[] }[];
}

/** Sets of keys, shipped and of one's own: what the plan lacks of one is added to it. */
export function KeySets({
  parameters,
  onAdd,
}: {
  parameters: readonly Parameter[];
  onAdd: (more: readonly Parameter[]) => void;
}) {
  const agreed = useAgreement<Sets>('keys');
  const [naming, setNaming] = useState(false);
  const { document: sets } = agreed;
  if (!sets) return null;
  const known = new Set(parameters.map((p) => p.key));
  const keep = (next: Sets['sets']) => agreed.set({ ...sets, sets: next });
  return (
    <>
      <Menu position="bottom-start" width={340} withinPortal>
        <Menu.Target>
          <Button size="xs" variant="default">
            Key sets ▾
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {sets.sets.map((set) => {
            const more = set.parameters.filter((p) => !known.has(p.key));
            return (
              <Menu.Item
                key={set.title}
                disabled={more.length === 0}
                onClick={() => onAdd(more)}
                rightSection={<span className="quiet">{more.length === 0 ? 'all there' : `adds ${more.length}`}</span>}
              >
                <b>{set.title}</b>
                <div className="quiet">{set.about}</div>
              </Menu.Item>
            );
          })}
          <Menu.Divider />
          <Menu.Item onClick={() => setNaming(true)}>Your own sets …</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <Modal
        opened={naming}
        onClose={() => {
          agreed.undo();
          setNaming(false);
        }}
        title="Key sets"
        size="lg"
      >
        <ul className={css.sets}>
          {sets.sets.map((set, at) => (
            <li key={set.title}>
              <span>
                <b>{set.title}</b> <span className="mono">{set.parameters.map((p) => p.key).join(' ')}</span>
              </span>
              <CloseButton
                size="sm"
                aria-label={`take out ${set.title}`}
                onClick={() => keep(sets.sets.filter((_, i) => i !== at))}
              />
            </li>
          ))}
        </ul>
        <Own
          taken={sets.sets.map((s) => s.title)}
          keys={parameters.length}
          onKeep={(title, about) => keep([...sets.sets, { title, about, parameters: [...parameters] }])}
        />
        <Saving {...agreed} saved={agreed.saved!} mayEdit />
      </Modal>
    </>
  );
}

/** The plan's keys, with what each says, as one set more. */
function Own({
  taken,
  keys,
  onKeep,
}: {
  taken: readonly string[];
  keys: number;
  onKeep: (title: string, about: string) => void;
}) {
  const [title, setTitle] = useState('');
  const [about, setAbout] = useState('');
  const isTaken = taken.includes(title.trim());
  return (
    <form
      className={css.own}
      onSubmit={(e) => {
        e.preventDefault();
        onKeep(title.trim(), about.trim());
        setTitle('');
        setAbout('');
      }}
    >
      <TextInput
        size="xs"
        label="Title"
        value={title}
        error={isTaken && 'there is one of this title'}
        onChange={(e) => setTitle(e.target.value)}
      />
      <TextInput size="xs" label="What it is for" value={about} onChange={(e) => setAbout(e.target.value)} />
      <Button type="submit" size="xs" variant="light" disabled={title.trim() === '' || isTaken}>
        Add the plan’s {num(keys)} keys as a set
      </Button>
    </form>
  );
}
