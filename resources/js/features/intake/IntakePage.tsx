import { Button } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api } from '../../api/client';
import { Empty } from '../../components/Notice';
import { useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { Makes } from './Makes';
import { SheetTable } from './SheetTable';
import { useIntake } from './useIntake';
import css from './intake.module.css';

export default function IntakePage() {
  const { intake } = useParams();
  return <IntakeOf key={intake} id={Number(intake)} />;
}

function IntakeOf({ id }: { id: number }) {
  const { client, to, mayEdit } = useHere();
  const navigate = useNavigate();
  const changed = useChanged();
  const of = useIntake(id);
  const { intake, tables, read, begin } = of;
  const [typed, setTitle] = useState<string | null>(null);
  const title = typed ?? intake?.title ?? '';
  const drop = useMutation({
    mutationFn: () =>
      api.DELETE('/clients/{client}/intakes/{intake}', { params: { path: { client: client.id, intake: id } } }),
    onSuccess: () => {
      changed('intakes');
      void navigate(to('accounts'));
    },
  });
  const begun = intake?.status === 'begun';
  useEffect(() => {
    if (begun) void navigate(to(intake?.account ? `accounts/${intake.account}` : 'accounts'), { replace: true });
  }, [begun, intake?.account, navigate, to]);
  const readNow = read.mutate;
  const beginNow = begin.mutate;
  const mayRead = mayEdit && intake?.status !== 'reading' && tables.some((t) => t.use);
  const mayBegin = mayEdit && intake?.status === 'read' && !of.isChanged;
  useKeys(
    useMemo(
      () => ({
        r: () => mayRead && readNow(title),
        b: () => mayBegin && beginNow(),
      }),
      [mayRead, readNow, title, mayBegin, beginNow],
    ),
  );
  if (of.query.error) {
    return (
      <Empty title="These sheets are not here" action={<Link to={to('accounts')}>Open the accounts</Link>}>
        {of.query.error.message}
      </Empty>
    );
  }
  if (!intake) return null;
  return (
    <div className={css.page}>
      <div className={css.main}>
        <header className={css.head}>
          <h1>
            {intake.name} <span className="quiet">{intake.number}</span>
          </h1>
          <span className="quiet">
            {intake.platform} · {intake.account ? 'brought before' : 'a new account'} ·{' '}
            {intake.files.map((f) => f.name).join(', ')}
          </span>
          <span style={{ flex: 1 }} />
          {mayEdit && (
            <Button size="compact-xs" variant="subtle" onClick={() => drop.mutate()} loading={drop.isPending}>
              Give these sheets up
            </Button>
          )}
        </header>
        {tables.map((table, at) => (
          <SheetTable
            key={table.title}
            intake={intake}
            table={table}
            at={at}
            onTable={of.change}
            onColumn={of.changeColumn}
            onLooked={of.put}
          />
        ))}
      </div>
      <Makes of={of} title={title} onTitle={setTitle} />
    </div>
  );
}
