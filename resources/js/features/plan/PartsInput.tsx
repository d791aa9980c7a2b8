import { Combobox, useCombobox } from '@mantine/core';
import { useEffect, useState } from 'react';
import { complete, openField } from './planText';
import css from './plan.module.css';

interface Props {
  label: string;
  text: string;
  fields: readonly string[];
  readOnly?: boolean;
  placeholder?: string;
  onChange: (text: string) => void;
}

/** A value of fixed text and fields, in one line; an opening angle offers the fields. */
export function PartsInput({ label, text, fields, readOnly, placeholder, onChange }: Props) {
  const [typed, setTyped] = useState(text);
  const [last, setLast] = useState(text);
  if (text !== last) {
    setLast(text); // changed from outside
    if (text !== typed) setTyped(text);
  }
  const box = useCombobox({ onDropdownClose: () => box.resetSelectedOption() });
  const begun = openField(typed);
  const offers = begun === null ? [] : fields.filter((f) => f.includes(begun));
  const selectFirst = box.selectFirstOption;
  useEffect(() => {
    if (begun !== null) selectFirst(); // once the offers are drawn
  }, [begun, selectFirst]);
  const change = (next: string) => {
    setTyped(next);
    if (openField(next) === null) {
      box.closeDropdown();
      onChange(next);
    } else {
      box.openDropdown();
    }
  };
  return (
    <Combobox store={box} onOptionSubmit={(field) => change(complete(typed, field))}>
      <Combobox.Target>
        <input
          className={`${css.input} mono`}
          aria-label={label}
          value={typed}
          readOnly={readOnly}
          placeholder={placeholder}
          spellCheck={false}
          onChange={(e) => change(e.target.value)}
          onBlur={() => {
            box.closeDropdown();
            if (typed !== text) onChange(typed);
          }}
        />
      </Combobox.Target>
      <Combobox.Dropdown hidden={offers.length === 0}>
        <Combobox.Options mah={220} style={{ overflow: 'auto' }}>
          {offers.map((field) => (
            <Combobox.Option key={field} value={field}>
              {field}
            </Combobox.Option>
          ))}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
