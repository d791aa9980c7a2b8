import { PasswordInput, type PasswordInputProps } from '@mantine/core';

/** A password that is being chosen. */
export function NewPassword({ onText, ...props }: PasswordInputProps & { onText: (text: string) => void }) {
  return (
    <PasswordInput
      description="At least ten characters."
      autoComplete="new-password"
      required
      minLength={10}
      onChange={(e) => onText(e.target.value)}
      {...props}
    />
  );
}
