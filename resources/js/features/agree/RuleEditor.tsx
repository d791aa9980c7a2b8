import { Button, Select, TextInput } from '@mantine/core';
import { line, said, WAY_WORDS, WAYS, type Rule, type Test } from './channels';
import css from './agree.module.css';

interface Props {
  rule: Rule;
  keys: readonly string[];
  onChange: (rule: Rule) => void;
}

/** One rule: its channel, and all that must hold. */
export function RuleEditor({ rule, keys, onChange }: Props) {
  const set = (at: number, test: Test) => onChange({ ...rule, all: rule.all.map((t, i) => (i === at ? test : t)) });
  return (
    <div className={css.rule}>
      <TextInput
        size="xs"
        label="Channel"
        value={rule.channel}
        onChange={(e) => onChange({ ...rule, channel: e.target.value })}
        data-autofocus
      />
      {rule.all.map((test, at) => (
        <fieldset key={at} className={css.testEdit}>
          <Select
            size="xs"
            aria-label={`what test ${at + 1} looks at`}
            data={keys.includes(test.key) ? [...keys] : [...keys, test.key]}
            value={test.key}
            allowDeselect={false}
            onChange={(key) => key && set(at, { ...test, key })}
          />
          {WAYS.map((way) => (
            <TextInput
              key={way}
              size="xs"
              label={WAY_WORDS[way]}
              aria-label={`test ${at + 1} ${WAY_WORDS[way]}`}
              placeholder={way === 'matches' ? 'a regular expression, alone' : 'words, with commas between'}
              disabled={way !== 'matches' && test.matches !== undefined}
              value={line(test, way)}
              onChange={(e) => set(at, said(test, way, e.target.value))}
            />
          ))}
          <Button
            size="compact-xs"
            variant="subtle"
            color="gray"
            onClick={() => onChange({ ...rule, all: rule.all.filter((_, i) => i !== at) })}
          >
            take this test out
          </Button>
        </fieldset>
      ))}
      <Button
        size="compact-xs"
        variant="subtle"
        onClick={() => onChange({ ...rule, all: [...rule.all, { key: 'source', in: ['new'] }] })}
      >
        and another test
      </Button>
    </div>
  );
}
