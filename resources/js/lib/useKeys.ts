import { useEffect } from 'react';

const TYPED_IN =
  'input:not([type=radio], [type=checkbox]), textarea, select, [contenteditable], [role=dialog], [role=listbox]';

/**
 * Keys for a screen: called when no field has the focus. Names as in KeyboardEvent.key.
 *
 * In place of Mantine's useHotkeys, which leaves fields out by their tag: in a checkbox of a list these work, within a
 * dialog they do not.
 */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      const typing = target?.closest(TYPED_IN);
      if (typing || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      keys[event.key]?.(event);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [keys]);
}
