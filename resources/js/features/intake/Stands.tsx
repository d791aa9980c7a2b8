import { Button, NumberInput, Popover, Select } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data } from '../../api/client';
import { Notice } from '../../components/Notice';
import { useHere } from '../../lib/useClient';
import type { Intake, Table } from './meanings';
import css from './intake.module.css';

const DELIMITERS = [
  { value: ',', label: 'a comma' },
  { value: ';', label: 'a semicolon' },
  { value: '\t', label: 'a tab' },
  { value: '|', label: 'a bar' },
];

interface Props {
  intake: Intake;
  table: Table;
  onLooked: (intake: Intake) => void;
}

/** How a table stands in its file, as it was found; where that is wrong, a person says it, and it is looked at anew. */
export function Stands({ intake, table, onLooked }: Props) {
  const { client } = useHere();
  const [opened, setOpened] = useState(false);
  const { form } = table;
  const [row, setRow] = useState<number | null>(table.headingRow);
  const [delimiter, setDelimiter] = useState(form?.delimiter ?? null);
  const [encoding, setEncoding] = useState(form?.encoding ?? null);
  const look = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/clients/{client}/intakes/{intake}/look', {
          params: { path: { client: client.id, intake: intake.id } },
          body: {
            revision: intake.revision,
            title: table.title,
            headingRow: row,
            delimiter: delimiter === form?.delimiter ? null : delimiter,
            encoding: encoding === form?.encoding ? null : encoding,
          },
        }),
      ),
    onSuccess: (next) => {
      setOpened(false);
      onLooked(next);
    },
  });
  if (!form) return null;
  const isText = form.delimiter !== null;
  const isChoice = form.encoding === 'UTF-8' || form.encoding === 'Windows-1252';
  return (
    <Popover opened={opened} onChange={setOpened} position="bottom-start" width={250} trapFocus returnFocus>
      <Popover.Target>
        <button type="button" className={css.stands} aria-expanded={opened} onClick={() => setOpened(!opened)}>
          {form.kind.toUpperCase()}
          {isText && ` · between cells ${named(form.delimiter!)}`}
          {form.encoding && ` · ${form.encoding}`}
          {table.headingRow ? ` · headings in row ${table.headingRow}` : ' · no headings found'}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          className={css.standsForm}
          aria-label={`how ${table.title} stands in its file`}
          onSubmit={(e) => {
            e.preventDefault();
            look.mutate();
          }}
        >
          <NumberInput
            size="xs"
            label="Headings stand in row"
            min={1}
            max={40}
            allowDecimal={false}
            value={row ?? ''}
            onChange={(v) => setRow(typeof v === 'number' ? v : null)}
          />
          {isText && (
            <Select
              size="xs"
              label="Between cells stands"
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={DELIMITERS}
              value={delimiter}
              onChange={setDelimiter}
            />
          )}
          {isChoice && (
            <Select
              size="xs"
              label="Its letters are"
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={['UTF-8', 'Windows-1252']}
              value={encoding}
              onChange={setEncoding}
            />
          )}
          {look.error && <Notice>{look.error.message}</Notice>}
          <Button type="submit" size="xs" loading={look.isPending}>
            Look again
          </Button>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}

const named = (delimiter: string): string => DELIMITERS.find((d) => d.value === delimiter)?.label ?? delimiter;
