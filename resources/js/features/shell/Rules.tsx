import { Button, Modal, Stack, Switch, TagsInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { keyOf, useChanged } from '../../lib/queries';

/** How changes go out for this client: who has to say yes, and where test clicks may go. */
export function Rules({ onClose }: { onClose: () => void }) {
  const { client } = useHere();
  const rules = useQuery({
    queryKey: keyOf('rules', client.id),
    queryFn: () => data(api.GET('/clients/{client}/rules', { params: { path: { client: client.id } } })),
  });
  return (
    <Modal opened onClose={onClose} title={`How changes go out for ${client.name}`} size="md">
      {rules.error && <Notice>{rules.error.message}</Notice>}
      {rules.data && <Form rules={rules.data} onClose={onClose} />}
    </Modal>
  );
}

function Form({ rules, onClose }: { rules: Schema['Rules']; onClose: () => void }) {
  const { client } = useHere();
  const changed = useChanged();
  const [needsApproval, setNeedsApproval] = useState(rules.needsApproval);
  const [hosts, setHosts] = useState(rules.hosts);
  const owner = client.role === 'owner';
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/clients/{client}/rules', { params: { path: { client: client.id } }, body: { needsApproval, hosts } }),
      ),
    onSuccess: () => {
      changed('rules');
      onClose();
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate();
      }}
    >
      <Stack gap="sm">
        <Switch
          label="Another person has to approve a change before anything is written"
          checked={needsApproval}
          disabled={!owner}
          onChange={(e) => setNeedsApproval(e.target.checked)}
        />
        <TagsInput
          label="Where test clicks may go"
          description={
            'Host names of landing pages and trackers, each with all below it. ' +
            'Private addresses are never followed.'
          }
          placeholder="shop.example"
          value={hosts}
          disabled={!owner}
          onChange={setHosts}
        />
        {keep.error && <Notice>{keep.error.message}</Notice>}
        {owner ? (
          <Button type="submit" loading={keep.isPending}>
            Keep
          </Button>
        ) : (
          <span className="quiet">Only owners of the client can change this.</span>
        )}
      </Stack>
    </form>
  );
}
