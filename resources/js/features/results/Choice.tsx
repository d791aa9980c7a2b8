import { Menu, UnstyledButton } from '@mantine/core';
import type { ReactNode } from 'react';
import css from './results.module.css';

/** A word of a sentence that can be changed. */
export function Choice({
  label,
  word,
  strong,
  quiet,
  hint,
  wide,
  children,
}: {
  label: string;
  word: string;
  strong?: boolean;
  quiet?: boolean;
  hint?: string;
  /** room for groups beside each other */
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Menu position="bottom-start" width={wide ? 640 : 300}>
      <Menu.Target>
        <UnstyledButton
          className={css.word}
          aria-label={`${label}: ${word}`}
          data-strong={strong || undefined}
          data-quiet={quiet || undefined}
          title={hint}
        >
          {word}
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown className={css.choices}>{children}</Menu.Dropdown>
    </Menu>
  );
}
