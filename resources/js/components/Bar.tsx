import { Progress } from '@mantine/core';

/** How far something is; what it will come to may not be known yet. */
export function Bar({ done, of, label }: { done: number; of: number; label?: string }) {
  const known = of > 0 && done > 0;
  return (
    <Progress
      size={6}
      w={120}
      value={known ? (100 * done) / of : 100}
      striped={!known}
      animated={!known}
      aria-label={label}
      aria-hidden={label === undefined}
    />
  );
}
