import { Button, FileButton } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, data, type Schema } from '../../api/client';
import { Empty, Notice } from '../../components/Notice';
import { StateBar } from '../../components/State';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { usePlan } from '../../lib/usePlan';
import { DraftDialog } from '../changes/DraftDialog';
import { EditDialog } from '../edit/EditDialog';
import { DropZone } from '../intake/DropZone';
import { IntakeDialog } from '../intake/IntakeDialog';
import { OpenIntakes } from '../intake/OpenIntakes';
import { Schedule } from '../outside/Schedule';
import { FilterDialog } from './FilterDialog';
import type { Act, Over } from './choice';
import { AccountPicker } from './AccountPicker';
import { AccountTable } from './AccountTable';
import { Overview } from './Overview';
import css from './accounts.module.css';
import { many, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';

export default function AccountsPage() {
  const { to, mayEdit } = useHere();
  const params = useParams();
  const navigate = useNavigate();
  const [acting, setActing] = useState<{ act: Act; over: Over; count: number | null } | null>(null);
  const [files, setFiles] = useState<File[] | null>(null);
  const accounts = useAccounts();
  const plan = usePlan();
  const connections = useConnections();
  const written = Boolean(plan.data?.document);
  const onAct = useCallback(
    (act: Act, over: Over, count: number | null) =>
      mayEdit && (written || act === 'keep') && setActing({ act, over, count }),
    [mayEdit, written],
  );
  if (accounts.error) return <Notice>{accounts.error.message}</Notice>;
  if (!accounts.data || !connections.data) return null;

  const failed = connections.data.lastImport?.status === 'failed' ? connections.data.lastImport : null;
  const sheets = mayEdit && <SheetsButton onFiles={setFiles} />;
  const drop = mayEdit && (
    <>
      <DropZone onFiles={setFiles} />
      {files && (
        <IntakeDialog
          files={files}
          accounts={accounts.data.items.filter((a) => a.readsBy === 'sheet')}
          suggested={accounts.data.items.find((a) => String(a.id) === params.account && a.readsBy === 'sheet')}
          onClose={() => setFiles(null)}
        />
      )}
    </>
  );
  if (accounts.data.items.length === 0) {
    return (
      <>
        <OpenIntakes />
        {connections.data.items.length === 0 ? (
          <Empty title="No account is here yet" action={sheets}>
            Drop an export of any ad platform here, one file or several: CSV, XLSX or ODS. You see what it is, say what
            its columns mean, and look at what it makes before anything is stored.
          </Empty>
        ) : (
          <Empty
            title="Nothing is imported yet"
            action={
              <span style={{ display: 'flex', gap: 8 }}>
                <ImportButton connections={connections.data.items} />
                {sheets}
              </span>
            }
          >
            {failed?.problem ??
              `${connections.data.items[0]!.title} is connected. Import its accounts to see what every ad sends, ` +
                'or drop an export of any platform here.'}
          </Empty>
        )}
        {drop}
      </>
    );
  }
  const account = accounts.data.items.find((a) => String(a.id) === params.account) ?? accounts.data.items[0]!;
  // this account's own, and those that nothing came over yet
  const fetched = connections.data.items.filter(
    (c) => c.readsBy === 'api' && (c.id === account.connection || c.importedAt === null),
  );
  return (
    <div className={css.page}>
      <div className={css.bar}>
        <AccountPicker accounts={accounts.data.items} account={account} />
        <Summary account={account} />
        <span style={{ flex: 1 }} />
        {sheets}
        {mayEdit && (
          <>
            <ImportButton connections={fetched} />
            {fetched.map((c) => (
              <Schedule key={c.id} connection={c} />
            ))}
          </>
        )}
        {mayEdit && (
          <Button
            size="xs"
            onClick={() => setActing({ act: 'line', over: {}, count: null })}
            disabled={!plan.data?.document}
            rightSection={<kbd>c</kbd>}
          >
            Bring in line
          </Button>
        )}
      </div>
      <OpenIntakes />
      <ChangedOutside account={account} />
      <Import account={account} last={connections.data.lastImport} />
      {failed && (
        <Notice>
          The last import from {failed.connection} failed. {failed.problem}
        </Notice>
      )}
      {plan.data && !plan.data.document && (
        <Notice
          calm
          action={
            <Button size="xs" variant="light" onClick={() => void navigate(to('plan'))}>
              Write the plan
            </Button>
          }
        >
          There is no plan yet, so nothing can be proven. Write down what every click must carry.
        </Notice>
      )}
      <Body key={account.id} account={account} onAct={onAct} />
      {acting?.act === 'line' && (
        <DraftDialog account={account} over={acting.over} count={acting.count} onClose={() => setActing(null)} />
      )}
      {acting?.act === 'edit' && (
        <EditDialog account={account} over={acting.over} count={acting.count} onClose={() => setActing(null)} />
      )}
      {acting?.act === 'keep' && <FilterDialog account={account} over={acting.over} onClose={() => setActing(null)} />}
      {drop}
    </div>
  );
}

/** That others have written on the platform, and what it does. */
function ChangedOutside({ account }: { account: Schema['Account'] }) {
  const { to } = useHere();
  const navigate = useNavigate();
  const { open, breaking, breaks } = account.outside;
  if (open === 0) return null;
  return (
    <Notice
      calm={breaking === 0}
      action={
        <Button size="xs" variant="light" onClick={() => void navigate(to('changes/outside'))}>
          Look and decide
        </Button>
      }
    >
      {many(open, 'thing')} changed on {account.platform} that nobody wrote from here
      {breaking > 0 ? `; the proof of ${many(breaks, 'ad')} is broken by it.` : '; no proof is broken by it.'}
    </Notice>
  );
}

/** What the last import left to be known: what could not be taken over, what has gone, what did not come. */
function Import({ account, last }: { account: Schema['Account']; last: Schema['Import'] | null }) {
  const { client } = useHere();
  const [shown, setShown] = useState(false);
  const apart = useQuery({
    queryKey: keyOf('apart', account.id, account.apart),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/accounts/{account}/apart', {
          params: { path: { client: client.id, account: account.id } },
        }),
      ),
    enabled: shown && account.apart > 0,
  });
  const notes = last?.status === 'done' && last.notes ? last.notes : null;
  if (account.apart === 0) return notes && <Notice calm>{notes}</Notice>;
  return (
    <Notice
      calm
      action={
        <Button size="xs" variant="default" aria-expanded={shown} onClick={() => setShown(!shown)}>
          {shown ? 'Fold' : 'Which'}
        </Button>
      }
    >
      {num(account.apart)} elements of the last import could not be taken over; they are set apart and not counted.
      {shown && (
        <ul className={css.apart} tabIndex={0} aria-label="what is set apart">
          {apart.data?.items.map((a) => (
            <li key={`${a.level} ${a.externalId}`}>
              <b>{a.name}</b> <span className="mono">{a.externalId}</span> <span className="quiet">{a.why}</span>
            </li>
          ))}
        </ul>
      )}
    </Notice>
  );
}

function Body({
  account,
  onAct,
}: {
  account: Schema['Account'];
  onAct: (act: Act, over: Over, count: number | null) => void;
}) {
  const [under, setUnder] = useState<number | null>(null);
  const changed = useChanged();
  const proof = `${account.planRevision} ${account.proven} ${account.broken} ${account.untracked}`;
  const last = useRef(proof);
  useEffect(() => {
    if (last.current !== proof) changed('proof');
    last.current = proof;
  }, [proof, changed]);
  return (
    <div className={css.body}>
      <div className={css.main}>
        <AccountTable account={account} under={under} onAct={onAct} />
      </div>
      <Overview account={account} onUnder={setUnder} />
    </div>
  );
}

function Summary({ account }: { account: Schema['Account'] }) {
  if (account.planRevision === null) return <span className="quiet">{num(account.ads)} ads</span>;
  return (
    <span className={css.summary}>
      <StateBar {...account} />
      <span>
        <b>{num(account.proven)}</b> proven · <b>{num(account.broken)}</b> broken · <b>{num(account.untracked)}</b>{' '}
        untracked <span className="quiet">of {num(account.ads)} ads</span>
      </span>
    </span>
  );
}

function useConnections() {
  const { client } = useHere();
  return useQuery({
    queryKey: keyOf('connections', client.id),
    queryFn: () => data(api.GET('/clients/{client}/connections', { params: { path: { client: client.id } } })),
  });
}

function ImportButton({ connections }: { connections: Schema['Connections']['items'] }) {
  const { client } = useHere();
  const changed = useChanged();
  const start = useMutation({
    mutationFn: (connection: number) =>
      data(
        api.POST('/clients/{client}/connections/{connection}/imports', {
          params: { path: { client: client.id, connection } },
        }),
      ),
    onSettled: () => changed('work'),
  });
  return (
    <>
      {start.error && <span role="alert">{start.error.message}</span>}
      {connections.map((c) => (
        <Button key={c.id} size="xs" variant="default" loading={start.isPending} onClick={() => start.mutate(c.id)}>
          Import from {c.title}
        </Button>
      ))}
    </>
  );
}

function SheetsButton({ onFiles }: { onFiles: (files: File[]) => void }) {
  return (
    <FileButton
      multiple
      accept=".csv,.tsv,.txt,.xlsx,.ods,.json,.gz,.zip"
      onChange={(files) => files.length > 0 && onFiles(files)}
    >
      {(props) => (
        <Button {...props} size="xs" variant="default">
          Bring sheets in
        </Button>
      )}
    </FileButton>
  );
}
