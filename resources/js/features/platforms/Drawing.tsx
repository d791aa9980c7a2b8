import { ActionIcon, Button, Select, SegmentedControl, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Document } from './document';
import { KINDS } from './Levels';
import { newId, toggled, withoutLevel, written } from './writing';
import css from './platforms.module.css';

const ROLES = ['account', 'folder', 'campaign', 'group', 'ad'];
const FAMILIES = ['search', 'social', 'native', 'display', 'portal'];

interface Props {
  text: string;
  document: Document;
  onChange: (text: string) => void;
}

/** The platform drawn, and drawn anew by clicking: levels as strata, slots as shafts, its rules as sentences. */
export function Drawing({ text, document: d, onChange }: Props) {
  const put = (path: readonly (string | number)[], value: unknown) => onChange(written(text, path, value));
  return (
    <>
      <div className={css.names}>
        <TextInput label="Called" value={d.title ?? ''} onChange={(e) => put(['title'], e.target.value)} />
        <TextInput label="Its id" value={d.id ?? ''} onChange={(e) => put(['id'], e.target.value)} />
        <Select
          label="Kind of platform"
          allowDeselect={false}
          data={FAMILIES}
          value={d.family}
          onChange={(family) => put(['family'], family)}
        />
      </div>
      <Strata text={text} document={d} onChange={onChange} />
      <Rules document={d} put={put} />
    </>
  );
}

function Strata({ text, document: d, onChange }: Props) {
  const both = (levels: Document['levels'], slots: Document['slots']) =>
    onChange(written(written(text, ['levels'], levels), ['slots'], slots));
  const level = (at: number, some: Partial<Document['levels'][number]>) =>
    onChange(
      written(
        text,
        ['levels'],
        d.levels.map((l, i) => (i === at ? { ...l, ...some } : l)),
      ),
    );
  const add = () => {
    const label = 'New level';
    const fresh = {
      id: newId(
        label,
        d.levels.map((l) => l.id),
      ),
      label,
      role: 'folder',
    };
    both([...d.levels.slice(0, -1), fresh, ...d.levels.slice(-1)], d.slots);
  };
  return (
    <section aria-label="levels and slots, to be drawn">
      <div className={css.levels} style={{ gridTemplateColumns: 'minmax(230px, 1.4fr) repeat(3, minmax(0, 1fr))' }}>
        <span className={css.corner}>level, from the account down to the ad</span>
        {KINDS.map((k) => {
          const slot = d.slots.findIndex((s) => s.kind === k.kind);
          return (
            <span key={k.kind} className={css.shaftHead}>
              <b>{k.name}</b>
              {slot < 0 ? (
                <span className="quiet">none yet</span>
              ) : k.kind === 'landing' ? (
                <span className="quiet">{k.says}</span>
              ) : (
                <button
                  type="button"
                  className={css.word}
                  onClick={() =>
                    onChange(
                      written(
                        text,
                        ['slots', slot, 'inherit'],
                        d.slots[slot]!.inherit === 'gather' ? 'nearest' : 'gather',
                      ),
                    )
                  }
                >
                  {d.slots[slot]!.inherit === 'gather' ? 'all levels gathered' : 'the narrowest wins'}
                </button>
              )}
            </span>
          );
        })}
        {d.levels.map((l, i) => (
          <div key={l.id} className={css.contents}>
            <span className={css.levelEdit}>
              <TextInput
                size="xs"
                aria-label={`name of level ${i + 1}`}
                value={l.label}
                onChange={(e) => level(i, { label: e.target.value })}
              />
              <Select
                size="xs"
                aria-label={`what ${l.label} is`}
                allowDeselect={false}
                data={ROLES}
                value={l.role}
                onChange={(role) => level(i, { role: role ?? l.role })}
              />
              <ActionIcon
                variant="subtle"
                color="gray"
                aria-label={`without ${l.label}`}
                disabled={d.levels.length <= 2}
                onClick={() =>
                  both(...(Object.values(withoutLevel(d, l.id)) as [Document['levels'], Document['slots']]))
                }
              >
                <IconX size={15} />
              </ActionIcon>
            </span>
            {KINDS.map((k) => {
              const on = d.slots.find((s) => s.kind === k.kind)?.levels.includes(l.id) ?? false;
              return (
                <button
                  key={k.kind}
                  type="button"
                  className={`${css.shaft} ${css.cut} ${on ? css.counts : css.closed}`}
                  aria-pressed={on}
                  aria-label={`${k.name} on ${l.label}`}
                  onClick={() => onChange(written(text, ['slots'], toggled(d, k.kind, l.id)))}
                >
                  {on ? 'may be set' : ''}
                </button>
              );
            })}
          </div>
        ))}
      </div>
      <Button size="compact-xs" variant="subtle" mt={4} onClick={add}>
        Add a level above the last
      </Button>
    </section>
  );
}

interface Rule {
  path: string[];
  says: string;
  choices: { value: string; label: string }[];
  now: string;
  value: (choice: string) => unknown;
}

function Rules({ document: d, put }: { document: Document; put: (path: (string | number)[], value: unknown) => void }) {
  const yes = (choice: string) => choice === 'yes';
  const rules: Rule[] = [
    {
      path: ['assembly', 'suffixJoins'],
      says: 'A suffix joins',
      choices: [
        { value: 'landing', label: 'the landing URL' },
        { value: 'click', label: 'the whole click URL' },
      ],
      now: d.assembly.suffixJoins,
      value: (c) => c,
    },
    {
      path: ['assembly', 'mendsQuestionMark'],
      says: 'A second ?',
      choices: [
        { value: 'yes', label: 'becomes &' },
        { value: 'no', label: 'stays' },
      ],
      now: d.assembly.mendsQuestionMark ? 'yes' : 'no',
      value: yes,
    },
    {
      path: ['assembly', 'mendsFragment'],
      says: 'What stands behind #',
      choices: [
        { value: 'yes', label: 'moves to the end' },
        { value: 'no', label: 'stays' },
      ],
      now: d.assembly.mendsFragment ? 'yes' : 'no',
      value: yes,
    },
    {
      path: ['assembly', 'space'],
      says: 'A space in a value becomes',
      choices: [
        { value: '%20', label: '%20' },
        { value: '+', label: '+' },
      ],
      now: d.assembly.space,
      value: (c) => c,
    },
  ];
  const syntax = d.syntax ?? { open: '', close: '', caseSensitive: true, unknown: 'keep' };
  const mark = (some: Partial<typeof syntax>) => {
    const next = { ...syntax, ...some };
    put(['syntax'], next.open === '' && next.close === '' ? null : next);
  };
  const clickId = d.clickId ?? { parameter: '', switch: 'account', default: true };
  return (
    <section aria-label="rules" className={css.rules}>
      {rules.map((r) => (
        <div key={r.says} className={css.rule}>
          <span id={`rule ${r.path.join('.')}`}>{r.says}</span>
          <SegmentedControl
            size="xs"
            aria-label={r.says}
            value={r.now}
            data={r.choices}
            onChange={(choice) => put(r.path, r.value(choice))}
          />
        </div>
      ))}
      <div className={css.rule}>
        <span>Names stand between</span>
        <span className={css.marks}>
          <TextInput
            size="xs"
            aria-label="mark before a name"
            value={syntax.open}
            onChange={(e) => mark({ open: e.target.value })}
          />
          <TextInput
            size="xs"
            aria-label="mark behind a name"
            value={syntax.close}
            onChange={(e) => mark({ close: e.target.value })}
          />
        </span>
      </div>
      <div className={css.rule}>
        <span>The click ID that it adds itself</span>
        <TextInput
          size="xs"
          aria-label="parameter of the click ID"
          placeholder="it adds none"
          value={clickId.parameter}
          onChange={(e) => put(['clickId'], e.target.value === '' ? null : { ...clickId, parameter: e.target.value })}
        />
      </div>
    </section>
  );
}
