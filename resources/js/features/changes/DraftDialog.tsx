import { Button, Checkbox, Modal, Radio, Select, Stack, Textarea, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { useFilters } from '../accounts/FilterDialog';
import type { Over } from '../accounts/choice';
import { num } from '../../lib/numbers';
import { useChanged } from '../../lib/queries';

/** What to bring in line, why, and how to treat what is there. Working it out writes nothing yet. */
export function DraftDialog({
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
  const filters = useFilters(account.id);
  const chosen = over.nodes?.length ?? 0;
  const found = over.q !== undefined || over.state !== undefined;
  const [ownTitle, setTitle] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const [about, setAbout] = useState<string>(found || chosen > 0 ? 'chosen' : 'all');
  const accounts = useAccounts();
  const others = accounts.data?.items.filter((a) => a.proven < a.ads).length ?? 0;
  const title =
    ownTitle ??
    (about === 'every'
      ? `Bring every account of ${client.name} in line with the plan`
      : about === 'chosen'
        ? `Bring ${count === null ? 'some' : num(count)} of ${account.name} in line with the plan`
        : `Bring ${account.name} in line with the plan`);
  const [existing, setExisting] = useState<'replace' | 'keep'>('replace');
  const [carrier, setCarrier] = useState<'fewest' | 'template' | 'suffix'>('fewest');
  const [maySwitch, setMaySwitch] = useState(true);
  const draft = useMutation({
    mutationFn: () => {
      const target =
        about === 'every'
          ? { every: true }
          : {
              account: account.id,
              ...(about === 'all' ? {} : about === 'chosen' ? { over } : { filter: Number(about) }),
            };
      return data(
        api.POST('/clients/{client}/changes', {
          params: { path: { client: client.id } },
          body: { title, reason, existing, carrier, switches: maySwitch ? 'may' : 'leave', ...target },
        }),
      );
    },
    onSuccess: ({ id }) => {
      changed('change');
      void navigate(to(`changes/${id}`));
    },
  });
  return (
    <Modal opened onClose={onClose} title="Bring in line with the plan" size="lg">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          draft.mutate();
        }}
      >
        <Stack gap="sm">
          <TextInput
            label="What"
            required
            maxLength={200}
            value={title}
            onChange={(e) => setTitle(e.target.value)}
            data-autofocus
          />
          <Textarea
            label="Why"
            autosize
            minRows={2}
            maxLength={2000}
            placeholder="For those who read it later"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <Select
            label="About"
            allowDeselect={false}
            value={about}
            onChange={(v) => setAbout(v ?? 'all')}
            data={[
              ...(found || chosen > 0
                ? [
                    {
                      value: 'chosen',
                      label: found
                        ? `${count === null ? 'all' : `the ${num(count)}`} that the filter finds`
                        : `the ${num(chosen)} chosen, with all below them`,
                    },
                  ]
                : []),
              { value: 'all', label: `all of ${account.name}` },
              ...(others > 1
                ? [
                    {
                      value: 'every',
                      label:
                        `every account of ${client.name} that is not in line, ${others} of them, ` +
                        'each a change of its own',
                    },
                  ]
                : []),
              ...filters.map((f) => ({ value: String(f.id), label: `the filter “${f.name}”` })),
            ]}
          />
          <Radio.Group
            label="Keys of the plan that ads send already"
            value={existing}
            onChange={(v) => setExisting(v as typeof existing)}
          >
            <Stack gap={4} mt={4}>
              <Radio size="xs" value="replace" label="are replaced; all other parameters stay" />
              <Radio size="xs" value="keep" label="stay as they are; only what is missing is added" />
            </Stack>
          </Radio.Group>
          {(about === 'every' || (account.slots.includes('template') && account.slots.includes('suffix'))) && (
            <Radio.Group label="Carried by" value={carrier} onChange={(v) => setCarrier(v as typeof carrier)}>
              <Stack gap={4} mt={4}>
                <Radio size="xs" value="fewest" label="whatever needs the fewest writes" />
                <Radio size="xs" value="suffix" label="the URL suffix" />
                <Radio
                  size="xs"
                  value="template"
                  label="the tracking template; a suffix where a campaign type ignores it"
                />
              </Stack>
            </Radio.Group>
          )}
          {(about === 'every' || account.switches.length > 0) && (
            <Checkbox
              size="xs"
              checked={maySwitch}
              onChange={(e) => setMaySwitch(e.target.checked)}
              label={
                'may switch the click ID and automatic tags of the whole account, ' +
                'where that heals something or saves writes'
              }
            />
          )}
          {draft.error && <Notice>{draft.error.message}</Notice>}
          <Button type="submit" loading={draft.isPending}>
            Work it out
          </Button>
          <span className="quiet">Nothing is written yet: you will see every write, and samples before and after.</span>
        </Stack>
      </form>
    </Modal>
  );
}
