import { Button, Menu, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import css from './agree.module.css';

const FIRST = {
  words: 'nothing agreed on yet',
  channels: 'as shipped, nothing agreed on yet',
  names: 'names are free so far',
  keys: 'as shipped, none of your own yet',
} as const;

interface Props {
  saved: Schema['Agreement'];
  isEdited: boolean;
  mayEdit: boolean;
  undo: () => void;
  save: { mutate: (fromDay: string) => void; isPending: boolean; error: Error | null };
  bringBack: { mutate: (revision: number) => void };
}

/** From which day what was edited counts, and what was agreed on before. */
export function Saving({ saved, isEdited, mayEdit, undo, save, bringBack }: Props) {
  const [day, setDay] = useState(saved.today);
  return (
    <>
      <div className={css.saving}>
        <Menu position="bottom-end" disabled={saved.revisions.length === 0}>
          <Menu.Target>
            <button type="button" className={css.revision}>
              {saved.revision === 0 ? FIRST[saved.kind] : `revision ${saved.revision}, from ${saved.fromDay}`}
              {isEdited && ', changed'}
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            {saved.revisions.map((r) => (
              <Menu.Item key={r.revision} onClick={() => bringBack.mutate(r.revision)} disabled={!mayEdit}>
                {r.revision === saved.revision ? 'Load' : 'Bring back'} revision {r.revision}, from {r.fromDay}
                {r.by && ` · ${r.by}`}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        {isEdited && mayEdit && (
          <>
            <TextInput
              size="xs"
              type="date"
              aria-label="from which day"
              value={day}
              onChange={(e) => setDay(e.target.value)}
            />
            <Button size="xs" variant="subtle" onClick={undo}>
              Undo all
            </Button>
            <Button size="xs" loading={save.isPending} onClick={() => save.mutate(day)}>
              Agree
            </Button>
          </>
        )}
      </div>
      {save.error && <Notice>{save.error.message}</Notice>}
    </>
  );
}
