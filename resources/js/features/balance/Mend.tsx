import { Button } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useAccounts } from '../../lib/useAccounts';
import { useHere } from '../../lib/useClient';
import { useKeys } from '../../lib/useKeys';
import { DraftDialog } from '../changes/DraftDialog';
import { aimOf, isOfTexts, type Down, type Place, type Step } from './steps';

/** Where what an ad sends is the cause of a step: the change that brings the picked line's ads in line. */
export function Mend({ step, down, line }: { step: Step; down: readonly Down[]; line: Place | undefined }) {
  const { to, mayEdit } = useHere();
  const [open, setOpen] = useState(false);
  const accounts = useAccounts();
  const aim = aimOf(down, line);
  const account = accounts.data?.items.find((a) => a.id === aim?.account);
  const can = mayEdit && isOfTexts(step) && account !== undefined;
  useKeys(useMemo(() => ({ c: () => can && setOpen(true) }), [can]));
  if (!isOfTexts(step)) return null;
  if (!can || !aim) return <Link to={to('audit')}>mend them</Link>;
  return (
    <>
      <Button size="compact-xs" variant="default" onClick={() => setOpen(true)} rightSection={<kbd>c</kbd>}>
        Bring {aim.name} in line
      </Button>
      {open && (
        <DraftDialog
          account={account}
          over={aim.nodes.length > 0 ? { nodes: aim.nodes } : {}}
          count={aim.nodes.length > 0 ? 1 : null}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
