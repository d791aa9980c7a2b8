import { Button } from '@mantine/core';
import type { Act } from './choice';
import { useHere } from '../../lib/useClient';
import css from './accounts.module.css';
import { num } from '../../lib/numbers';

/** What is chosen, and what can be done with all of it. */
export function Chosen({
  chosen,
  found,
  more,
  onAct,
  onOwnPlan,
  onClear,
}: {
  chosen: number;
  found: number | null;
  /** more than these are found, and not listed */
  more: boolean;
  onAct: (act: Act) => void;
  /** undefined: a plan can't tell these from others */
  onOwnPlan?: () => void;
  onClear: () => void;
}) {
  const { mayEdit } = useHere();
  if (chosen === 0 && found === null) {
    return (
      <span className={css.acts}>
        {mayEdit && (
          <Button size="compact-xs" variant="subtle" onClick={() => onAct('edit')} rightSection={<kbd>e</kbd>}>
            Edit texts
          </Button>
        )}
        <span className="quiet">
          <kbd>Space</kbd> chooses
        </span>
      </span>
    );
  }
  return (
    <span className={css.acts} role="status">
      {chosen > 0 ? (
        <b>{num(chosen)} chosen</b>
      ) : (
        <span className="quiet">
          {more ? `the first ${num(found ?? 0)}; say more to see others` : `${num(found ?? 0)} found`}
        </span>
      )}
      {mayEdit && (
        <>
          <Button size="compact-xs" variant="subtle" onClick={() => onAct('line')} rightSection={<kbd>c</kbd>}>
            Bring {chosen > 0 ? 'these' : 'all of them'} in line
          </Button>
          <Button size="compact-xs" variant="subtle" onClick={() => onAct('edit')} rightSection={<kbd>e</kbd>}>
            Edit texts
          </Button>
          {onOwnPlan && (
            <Button size="compact-xs" variant="subtle" onClick={onOwnPlan} rightSection={<kbd>p</kbd>}>
              A plan of their own
            </Button>
          )}
          <Button size="compact-xs" variant="subtle" onClick={() => onAct('keep')}>
            Keep as a filter
          </Button>
        </>
      )}
      {chosen > 0 && (
        <Button size="compact-xs" variant="subtle" color="gray" onClick={onClear} rightSection={<kbd>Esc</kbd>}>
          None
        </Button>
      )}
    </span>
  );
}
