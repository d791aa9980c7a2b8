import { ActionIcon, Button, Checkbox, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { Notice } from '../../components/Notice';
import { useKeep, type Draft } from './useTrackers';
import css from './trackers.module.css';

interface Props {
  draft: Draft;
  onChange: (draft: Draft) => void;
  onDone: () => void;
}

/** What one tracker does with a click; what it does to a URL is seen beside while typing. */
export function TrackerForm({ draft, onChange, onDone }: Props) {
  const { keep, forget } = useKeep(onDone);
  const set = (some: Partial<Draft>) => onChange({ ...draft, ...some });
  const adds = (at: number, some: { key?: string; text?: string }) =>
    set({ adds: draft.adds.map((a, i) => (i === at ? { ...a, ...some } : a)) });
  const error = keep.error ?? forget.error;
  return (
    <form
      className={css.form}
      aria-label="a click tracker"
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate({ ...draft, adds: draft.adds.filter((a) => a.key !== '') });
      }}
      onKeyDown={(e) => e.key === 'Escape' && onDone()}
    >
      {error && <Notice>{error.message}</Notice>}
      <div className={css.two}>
        <TextInput
          label="Host"
          placeholder="go.tracker.example"
          autoFocus
          required
          value={draft.host}
          onChange={(e) => set({ host: e.target.value.trim().toLowerCase() })}
        />
        <TextInput
          label="The destination stands in its parameter"
          placeholder="to"
          required
          value={draft.parameter}
          onChange={(e) => set({ parameter: e.target.value })}
        />
      </div>
      <Checkbox
        label="It hands its other parameters on to the destination"
        checked={draft.forwards}
        onChange={(e) => set({ forwards: e.target.checked })}
      />
      <fieldset className={css.adds}>
        <legend>What it adds itself</legend>
        {draft.adds.map((a, i) => (
          <div key={i} className={css.add}>
            <TextInput
              aria-label={`key ${i + 1} that it adds`}
              value={a.key ?? ''}
              onChange={(e) => adds(i, { key: e.target.value })}
            />
            <span aria-hidden>=</span>
            <TextInput
              aria-label={`value ${i + 1} that it adds`}
              value={a.text ?? ''}
              onChange={(e) => adds(i, { text: e.target.value })}
            />
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`not ${a.key === '' ? 'this' : a.key}`}
              onClick={() => set({ adds: draft.adds.filter((_, at) => at !== i) })}
            >
              <IconX size={15} />
            </ActionIcon>
          </div>
        ))}
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => set({ adds: [...draft.adds, { key: '', text: '' }] })}
        >
          Add a key
        </Button>
      </fieldset>
      <div className={css.acts}>
        <Button type="submit" size="xs" loading={keep.isPending}>
          Keep it
        </Button>
        <Button size="xs" variant="subtle" onClick={onDone}>
          Leave it
        </Button>
        <span style={{ flex: 1 }} />
        {draft.id !== null && (
          <Button
            size="xs"
            variant="default"
            color="red"
            loading={forget.isPending}
            onClick={() => forget.mutate(draft.id!)}
          >
            Forget it
          </Button>
        )}
      </div>
    </form>
  );
}
