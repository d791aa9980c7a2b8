import { Menu } from '@mantine/core';
import { Choice } from './Choice';
import type { Question } from './question';

const MEANT = { today: 'plan and names of today', then: 'plan and names of the day' };

type Meant = Question['meant'];

/** Whether arrivals are read as they came, or as they were meant. */
export function AsMeant({ meant, onChange }: { meant: Meant; onChange: (meant: Meant) => void }) {
  return (
    <Choice
      label="how it is read"
      word={meant ? `as it was meant, by ${MEANT[meant]}` : 'as it arrived'}
      quiet={!meant}
    >
      <Menu.Item onClick={() => onChange(undefined)}>as it arrived</Menu.Item>
      <Menu.Item onClick={() => onChange('today')}>as it was meant, by {MEANT.today}</Menu.Item>
      <Menu.Item onClick={() => onChange('then')}>as it was meant, by {MEANT.then}</Menu.Item>
    </Choice>
  );
}
