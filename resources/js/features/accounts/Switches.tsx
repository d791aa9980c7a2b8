import { SegmentedControl } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import { settingName, switchWords } from '../../lib/switches';
import css from './accounts.module.css';
import { num } from '../../lib/numbers';
import { useChanged } from '../../lib/queries';

/** What the account switches for all of its ads. Choosing another drafts a change; nothing is switched yet. */
export function Switches({ account }: { account: Schema['Account'] }) {
  const { client, to, mayEdit } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const draft = useMutation({
    mutationFn: ({ setting, after }: { setting: string; after: string }) => {
      const words = switchWords({ setting, after }, account.ads);
      const title = `${words[0]!.toUpperCase()}${words.slice(1)} of ${account.name}`;
      return data(
        api.POST('/clients/{client}/changes', {
          params: { path: { client: client.id } },
          body: {
            account: account.id,
            title,
            texts: [{ node: account.root ?? 0, slot: 'setting', custom: setting, text: after }],
          },
        }),
      );
    },
    onSuccess: ({ id }) => {
      changed('change');
      void navigate(to(`changes/${id}`));
    },
  });
  if (account.switches.length === 0) return null;
  return (
    <section aria-label="what the account switches for all of its ads">
      <div className={css.sideHead}>
        <h2>Switches</h2>
        <span className="quiet">for all {num(account.ads)} ads</span>
      </div>
      {account.switches.map((s) => (
        <div key={s.setting} className={css.switch}>
          <span>{settingName(s.setting)}</span>
          <SegmentedControl
            size="xs"
            aria-label={settingName(s.setting)}
            readOnly={!mayEdit || account.planRevision === null}
            value={s.now}
            onChange={(after) => draft.mutate({ setting: s.setting, after })}
            data={s.choices}
          />
        </div>
      ))}
      {draft.error && <Notice>{draft.error.message}</Notice>}
    </section>
  );
}
