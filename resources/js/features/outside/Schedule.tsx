import { Button, Popover, Select } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { moment } from '../../lib/moments';
import { useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import css from './outside.module.css';

type Connection = Schema['Connections']['items'][number];
type Wanted = Omit<Schema['Schedule'], 'nextAt'>;

const OFTEN: Record<string, string> = {
  '1': 'every hour',
  '3': 'every 3 hours',
  '6': 'every 6 hours',
  '12': 'twice a day',
  '24': 'every day',
  '168': 'every week',
};
const HOURS = Array.from({ length: 24 }, (_, h) => ({ value: String(h), label: `${String(h).padStart(2, '0')}:00` }));
const number = (v: string | null) => (v === null ? null : Number(v));
const text = (n: number | null) => (n === null ? null : String(n));

/** How often a connection is imported by itself, and when it is not. */
export function Schedule({ connection }: { connection: Connection }) {
  const { client } = useHere();
  const changed = useChanged();
  const [opened, setOpened] = useState(false);
  const { schedule } = connection;
  const set = useMutation({
    mutationFn: (body: Wanted) =>
      data(
        api.PUT('/clients/{client}/connections/{connection}/schedule', {
          params: { path: { client: client.id, connection: connection.id } },
          body: body as never,
        }),
      ),
    onSuccess: () => changed('connections'),
  });
  const now: Wanted = {
    everyHours: schedule.everyHours,
    quietFrom: schedule.quietFrom,
    quietUntil: schedule.quietUntil,
  };
  const often = schedule.everyHours === null ? 'by hand' : OFTEN[String(schedule.everyHours)];
  return (
    <Popover opened={opened} onChange={setOpened} position="bottom-end" width={330} trapFocus returnFocus>
      <Popover.Target>
        <Button
          size="xs"
          variant="subtle"
          aria-expanded={opened}
          onClick={() => setOpened(!opened)}
          title="how often this is imported by itself"
        >
          {often}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={css.schedule}>
          <Select
            size="xs"
            label={`Import from ${connection.title} by itself`}
            comboboxProps={{ withinPortal: false }}
            clearable
            placeholder="never, only by hand"
            value={text(now.everyHours)}
            onChange={(v) => set.mutate({ ...now, everyHours: number(v) })}
            data={Object.entries(OFTEN).map(([value, label]) => ({ value, label }))}
          />
          <Quiet now={now} onSet={(quiet) => set.mutate({ ...now, ...quiet })} />
          {set.error && <Notice>{set.error.message}</Notice>}
          <p className="quiet" role="status">
            {schedule.nextAt
              ? `The next one begins ${moment(schedule.nextAt)}. What changed outside then waits under Changes.`
              : 'Nothing is imported by itself.'}
          </p>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

/** The hours in which none begins; both ends are chosen before they count. */
function Quiet({ now, onSet }: { now: Wanted; onSet: (quiet: Pick<Wanted, 'quietFrom' | 'quietUntil'>) => void }) {
  const [from, setFrom] = useState(text(now.quietFrom));
  const [until, setUntil] = useState(text(now.quietUntil));
  const say = (f: string | null, u: string | null) => {
    setFrom(f);
    setUntil(u);
    if ((f === null) === (u === null)) onSet({ quietFrom: number(f), quietUntil: number(u) });
  };
  const select = { size: 'xs', data: HOURS, clearable: true, placeholder: '–', comboboxProps: { withinPortal: false } };
  return (
    <div className={css.quiet}>
      <Select {...select} label="Quiet from" value={from} onChange={(v) => say(v, until)} />
      <Select {...select} label="until" value={until} onChange={(v) => say(from, v)} />
    </div>
  );
}
