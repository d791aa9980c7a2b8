import { ActionIcon } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconX } from '@tabler/icons-react';

interface Props {
  /** what is moved, in words */
  what: string;
  at: number;
  of: number;
  onMove: (to: number) => void;
  onOut: () => void;
}

/** The keys that move one of a list up and down, and take it out. */
export function Moves({ what, at, of, onMove, onOut }: Props) {
  const key = { size: 24, variant: 'subtle', color: 'gray' } as const;
  return (
    <>
      <ActionIcon {...key} aria-label={`move ${what} up`} disabled={at === 0} onClick={() => onMove(at - 1)}>
        <IconArrowUp size={14} />
      </ActionIcon>
      <ActionIcon {...key} aria-label={`move ${what} down`} disabled={at === of - 1} onClick={() => onMove(at + 1)}>
        <IconArrowDown size={14} />
      </ActionIcon>
      <ActionIcon {...key} aria-label={`take ${what} out`} onClick={onOut}>
        <IconX size={14} />
      </ActionIcon>
    </>
  );
}
