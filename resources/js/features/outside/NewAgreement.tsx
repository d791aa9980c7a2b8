import { Button, Modal } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { many, num } from '../../lib/numbers';
import { keyOf, useChanged } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import type { OutsideChange } from './useOutside';
import css from './outside.module.css';

interface Props {
  change: OutsideChange;
  onClose: () => void;
  /** it was taken into the plan */
  onTaken: () => void;
}

/** What changed outside, as a new agreement: which keys would be agreed otherwise, and what that would do. */
export function NewAgreement({ change, onClose, onTaken }: Props) {
  const { client } = useHere();
  const changed = useChanged();
  const agreement = useQuery({
    queryKey: keyOf('agreement', change.id),
    queryFn: () =>
      data(
        api.GET('/clients/{client}/outside/{outsideChange}/agreement', {
          params: { path: { client: client.id, outsideChange: change.id } },
        }),
      ),
    gcTime: 0,
  });
  const take = useMutation({
    mutationFn: () => {
      const { revision, document } = agreement.data!;
      return data(
        api.PUT('/clients/{client}/plan', {
          params: { path: { client: client.id } },
          body: { revision, document },
        }),
      );
    },
    onSuccess: () => {
      changed('plan', 'work');
      onTaken();
    },
  });
  const d = agreement.data;
  return (
    <Modal opened onClose={onClose} title="Is this what was agreed?" size="md">
      {(agreement.error ?? take.error) && <Notice>{(agreement.error ?? take.error)!.message}</Notice>}
      {d && d.keys.length === 0 && (
        <p>It says no other fixed value for any key of the plan, so there is nothing to agree anew.</p>
      )}
      {d && d.keys.length > 0 && d.effect && (
        <div className={css.agreement}>
          <p>The plan would say for {d.platform}:</p>
          <table>
            <tbody>
              {d.keys.map((k) => (
                <tr key={k.key}>
                  <th scope="row" className="mono">
                    {k.key}
                  </th>
                  <td className="mono">
                    <s>{k.expected}</s> → <b>{k.arrived}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p>
            {many(d.effect.mends, 'ad')} of this account would be proven by it,{' '}
            <b className={d.effect.breaks > 0 ? css.bad : undefined}>{num(d.effect.breaks)} no more</b>
            {d.effect.looked < d.effect.ads && ` (of the first ${num(d.effect.looked)})`}.{' '}
            {d.effect.breaks > 0 && 'Those still send what was agreed before; bring them in line afterwards.'}
          </p>
          <Button
            loading={take.isPending}
            onClick={() => take.mutate()}
            data-autofocus={d.effect.breaks === 0 || undefined}
          >
            Take it into the plan
          </Button>
        </div>
      )}
    </Modal>
  );
}
