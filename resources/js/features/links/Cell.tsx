import { Autocomplete } from '@mantine/core';
import { isInUse, type Words } from '../agree/words';
import { useAgreement } from '../agree/useAgreement';
import css from './links.module.css';

/** A cell of the bench; one of a key that has agreed words offers them. Arrows and Enter go up and down. */
export function Cell({
  column,
  row,
  value,
  wrong,
  onChange,
  onPaste,
}: {
  column: string;
  row: number;
  value: string;
  wrong: boolean;
  onChange: (text: string) => void;
  onPaste: (text: string) => void;
}) {
  const words = useAgreement<Words>('words').document?.keys[column] ?? [];
  const offers = words.filter((w) => isInUse(w)).map((w) => w.word);
  const go = (to: number) => document.querySelector<HTMLElement>(`[data-cell="${to} ${column}"]`)?.focus();
  return (
    <span role="gridcell" className={css.cell} data-wrong={wrong || undefined}>
      <Autocomplete
        variant="unstyled"
        size="xs"
        aria-label={`${column} of row ${row + 1}`}
        data-cell={`${row} ${column}`}
        data={offers}
        value={value}
        selectFirstOptionOnChange={false}
        comboboxProps={{ width: 220, position: 'bottom-start' }}
        classNames={{ input: column === 'title' ? '' : 'mono' }}
        onChange={onChange}
        onPaste={(event) => {
          const text = event.clipboardData.getData('text/plain');
          if (!/[\t\n]/.test(text)) return;
          event.preventDefault();
          onPaste(text);
        }}
        onKeyDown={(event) => {
          if (event.ctrlKey || event.metaKey || event.altKey) return;
          const isOpen = event.currentTarget.getAttribute('aria-expanded') === 'true';
          const isChoosing = isOpen && event.currentTarget.hasAttribute('aria-activedescendant');
          if (event.key === 'Enter' && !isChoosing) go(row + 1);
          else if (event.key === 'ArrowUp' && !isOpen) go(row - 1);
          else if (event.key === 'ArrowDown' && !isOpen && offers.length === 0) go(row + 1);
        }}
      />
    </span>
  );
}
