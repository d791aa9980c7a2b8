import { Button, Checkbox, Modal, SegmentedControl, Select, Textarea, TextInput } from '@mantine/core';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useDebouncedValue } from '@mantine/hooks';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import type { Over } from '../accounts/choice';
import { Preview } from './Preview';
import css from './edit.module.css';
import { num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';

type What = Schema['Edit']['what'];
type Slot = NonNullable<What['slots']>[number];

const KINDS: [What['kind'], string][] = [
  ['replace', 'find and replace'],
  ['set', 'set a parameter'],
  ['remove', 'take one out'],
  ['copy', 'copy from one'],
  ['paste', 'paste cells'],
];

/** Many texts at once, seen as you type: nothing is written before it is a change. */
export function EditDialog({
  account,
  over,
  count,
  onClose,
}: {
  account: Schema['Account'];
  over: Over;
  count: number | null;
  onClose: () => void;
}) {
  const { client, to } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const [what, setWhat] = useState<What>({
    kind: 'replace',
    slots: account.slots.filter((s) => s !== 'custom'),
    find: '',
    with: '',
  });
  const [title, setTitle] = useState('');
  const [reason, setReason] = useState('');
  const [asked] = useDebouncedValue(what, 150);
  const all = over.q ? `all that “${over.q}” finds` : account.name;
  const about = count === null ? all : `${num(count)} chosen`;
  const path = { params: { path: { client: client.id, account: account.id } } };
  const ready = isReady(asked);
  const preview = useQuery({
    queryKey: keyOf('edit', account.id, over, asked),
    queryFn: () =>
      data(api.POST('/clients/{client}/accounts/{account}/edits', { ...path, body: { over, what: asked } })),
    enabled: ready,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const draft = useMutation({
    mutationFn: () =>
      data(
        api.POST('/clients/{client}/accounts/{account}/edits', {
          ...path,
          body: { over, what, title: title.trim() || titleOf(what), reason },
        }),
      ),
    onSuccess: ({ change }) => {
      changed('change');
      if (change !== null) void navigate(to(`changes/${change}`));
    },
  });
  const seen = ready && !preview.error ? preview.data : undefined;
  return (
    <Modal opened onClose={onClose} title={`Edit texts of ${about}`} size="80rem">
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          if (seen && seen.total > 0) draft.mutate();
        }}
      >
        <SegmentedControl
          size="xs"
          aria-label="what is done"
          value={what.kind}
          onChange={(kind) => setWhat({ ...what, kind: kind as What['kind'] })}
          data={KINDS.map(([value, label]) => ({ value, label }))}
        />
        <Fields what={what} over={over} account={account} onChange={setWhat} />
        {preview.error && ready && <Notice>{preview.error.message}</Notice>}
        <Preview seen={seen} pending={preview.isFetching} />
        {draft.error && <Notice>{draft.error.message}</Notice>}
        <div className={css.end}>
          <TextInput
            size="xs"
            label="What"
            placeholder={titleOf(what)}
            maxLength={200}
            value={title}
            onChange={(e) => setTitle(e.target.value)}
          />
          <TextInput
            size="xs"
            label="Why"
            placeholder="For those who read it later"
            maxLength={2000}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <Button type="submit" size="sm" disabled={!seen || seen.total === 0} loading={draft.isPending}>
            Draft the change
          </Button>
        </div>
      </form>
    </Modal>
  );
}

function Fields({
  what,
  over,
  account,
  onChange,
}: {
  what: What;
  over: Over;
  account: Schema['Account'];
  onChange: (what: What) => void;
}) {
  const put = (some: Partial<What>) => onChange({ ...what, ...some });
  return (
    <div className={css.fields}>
      {what.kind === 'replace' && (
        <>
          <TextInput
            size="xs"
            label={what.pattern ? 'Pattern' : 'Find'}
            value={what.find ?? ''}
            onChange={(e) => put({ find: e.target.value })}
            spellCheck={false}
            data-autofocus
          />
          <TextInput
            size="xs"
            label={what.pattern ? 'Replace by, $1 is the first group' : 'Replace by'}
            value={what.with ?? ''}
            onChange={(e) => put({ with: e.target.value })}
            spellCheck={false}
          />
          <Checkbox
            size="xs"
            label="a regular expression"
            checked={what.pattern ?? false}
            onChange={(e) => put({ pattern: e.target.checked })}
          />
        </>
      )}
      {(what.kind === 'set' || what.kind === 'remove') && (
        <TextInput
          size="xs"
          label="Key"
          placeholder="utm_content"
          value={what.key ?? ''}
          onChange={(e) => put({ key: e.target.value })}
          spellCheck={false}
        />
      )}
      {what.kind === 'set' && (
        <TextInput
          size="xs"
          label="Value; the platform’s tokens are filled"
          value={what.value ?? ''}
          onChange={(e) => put({ value: e.target.value })}
          spellCheck={false}
        />
      )}
      {what.kind === 'copy' && (
        <Source account={account} over={over} value={what.from ?? null} onChange={(from) => put({ from })} />
      )}
      {what.kind === 'paste' ? (
        <Textarea
          size="xs"
          className={css.cells}
          label={
            'Cells, as a spreadsheet copies them: the first line names the columns (number, template, suffix, ' +
            'landing, custom parameters); an empty cell leaves the text, (none) clears it'
          }
          minRows={5}
          maxRows={8}
          autosize
          placeholder={'number\tsuffix\n71012\tutm_source=…'}
          value={what.cells ?? ''}
          onChange={(e) => put({ cells: e.target.value })}
          spellCheck={false}
        />
      ) : (
        <Checkbox.Group
          label="In"
          size="xs"
          value={what.slots ?? []}
          onChange={(slots) => put({ slots: slots as Slot[] })}
        >
          <span className={css.slots}>
            {account.slots
              .filter((s) => !(what.kind === 'set' && s === 'custom') && !(what.kind === 'copy' && s === 'landing'))
              .map((s) => (
                <Checkbox key={s} size="xs" value={s} label={s === 'custom' ? 'custom parameters' : s} />
              ))}
          </span>
        </Checkbox.Group>
      )}
    </div>
  );
}

/** Copied from: one of those that are chosen, or any campaign. */
function Source({
  account,
  over,
  value,
  onChange,
}: {
  account: Schema['Account'];
  over: Over;
  value: number | null;
  onChange: (node: number) => void;
}) {
  const { client } = useHere();
  const [words, setWords] = useState('');
  const rows = useQuery({
    queryKey: keyOf('rows', account.id, 'sources', words),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/rows', {
          params: {
            path: { client: client.id, account: account.id },
            query: { limit: '50', ...(words.trim() === '' ? {} : { q: words.trim() }) },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const found = rows.data?.rows.filter((r) => !r.isAd) ?? [];
  return (
    <Select
      size="xs"
      w={280}
      label={`From${over.nodes ? '; it may be one of those chosen' : ''}`}
      searchable
      onSearchChange={setWords}
      filter={({ options }) => options}
      value={value === null ? null : String(value)}
      onChange={(v) => v && onChange(Number(v))}
      data={found.map((r) => ({ value: String(r.id), label: `${r.name} · ${r.level}` }))}
    />
  );
}

function isReady(what: What): boolean {
  if (what.kind === 'paste') return (what.cells ?? '').trim() !== '';
  if ((what.slots ?? []).length === 0) return false;
  return what.kind === 'replace'
    ? (what.find ?? '') !== ''
    : what.kind === 'copy'
      ? what.from !== undefined
      : (what.key ?? '') !== '';
}

function titleOf(what: What): string {
  const words: Record<What['kind'], string> = {
    replace: `Replace “${what.find ?? ''}” by “${what.with ?? ''}”`,
    set: `Set ${what.key ?? ''} to ${what.value ?? ''}`,
    remove: `Take ${what.key ?? ''} out`,
    copy: 'Copy tracking texts',
    paste: 'Texts from a spreadsheet',
  };
  return words[what.kind].slice(0, 200);
}
