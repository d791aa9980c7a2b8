import { Progress } from '@mantine/core';
import { Notice } from '../../components/Notice';
import { many, num } from '../../lib/numbers';
import { useHere } from '../../lib/useClient';
import type { Reading } from './useReading';
import css from './results.module.css';

/** What a reading of what was meant has healed, and what it can't; or how far it is. */
export function Meant({ reading }: { reading: Reading | undefined }) {
  const { client } = useHere();
  if (!reading) return null;
  if (reading.status === 'failed') return <Notice>{reading.problem}</Notice>;
  if (reading.status !== 'done') {
    const share = reading.total === 0 ? 0 : (100 * reading.done) / reading.total;
    return (
      <div className={css.reads} role="status">
        <span>
          {num(reading.done)} of {many(reading.total, 'arrival')} are read as they were meant
        </span>
        <Progress value={share} size="sm" aria-label="how far it is" />
      </div>
    );
  }
  const sheet = `/api/v1/clients/${client.id}/readings/${reading.id}/file`;
  return (
    <p className={css.note}>
      Of {many(reading.views, 'view')} of known ads <b>{num(reading.healed)}</b> are read otherwise than they arrived;
      of {num(reading.unknown)} a key can’t be known, it stays as it arrived. What arrived is not changed.{' '}
      <a href={`${sheet}?kind=xlsx`} download>
        what is healed, as XLSX
      </a>{' '}
      <a href={`${sheet}?kind=csv`} download>
        CSV
      </a>
    </p>
  );
}
