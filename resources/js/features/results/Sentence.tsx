import { Menu, Popover, TextInput, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import { usePlan } from '../../lib/usePlan';
import { AsMeant } from './AsMeant';
import { Choice } from './Choice';
import { MEASURES } from './measures';
import {
  dimensionsOf,
  isTime,
  nothingOf,
  readDays,
  readPeriod,
  titleOf,
  type Dimension,
  type Measure,
  type Period,
  type Question,
} from './question';
import css from './results.module.css';

const PERIODS: readonly [string, Period][] = [
  ['yesterday', { last: 1 }],
  ['the last 7 days', { last: 7 }],
  ['the last 28 days', { last: 28 }],
  ['the last 90 days', { last: 90 }],
  ['this month', { month: 0 }],
  ['last month', { month: -1 }],
];

/** The question, as a sentence whose words can be changed. */
export function Sentence({
  question,
  days,
  beside,
  asked,
  onChange,
}: {
  question: Question;
  days: { from: string; to: string };
  beside: { from: string; to: string } | null;
  /** what the values are called that are asked for only */
  asked: readonly Record<string, string>[];
  onChange: (question: Question) => void;
}) {
  const set = (some: Partial<Question>) => onChange({ ...question, ...some });
  const { by, where } = question;
  return (
    <div className={css.sentence} role="group" aria-label="what is asked">
      <Choice label="what is counted" word={MEASURES[question.measure].title} strong>
        {(Object.keys(MEASURES) as Measure[]).map((m) => (
          <Menu.Item key={m} onClick={() => set({ measure: m })} rightSection={<Means of={m} />}>
            {MEASURES[m].title}
          </Menu.Item>
        ))}
      </Choice>{' '}
      by{' '}
      {by.map((dimension, i) => (
        <span key={dimension}>
          {i > 0 && <i className={css.then}>›</i>}
          <Choice label={`told by, ${i + 1}`} word={titleOf(dimension)} wide>
            <Dimensions
              taken={by.filter((d) => d !== dimension)}
              deeper={i > 0}
              onPick={(d) => set({ by: by.map((old, n) => (n === i ? d : old)) })}
            />
            {by.length > 1 && (
              <>
                <Menu.Divider />
                <Menu.Item onClick={() => set({ by: by.filter((d) => d !== dimension) })}>not by this</Menu.Item>
              </>
            )}
          </Choice>
        </span>
      ))}
      {by.length < 3 && (
        <>
          <i className={css.then}>›</i>
          <Choice label="told by, deeper" word="…" quiet wide>
            <Dimensions taken={by} deeper onPick={(d) => set({ by: [...by, d] })} />
          </Choice>
        </>
      )}{' '}
      in <Days period={question.period} days={days} onChange={(period) => set({ period })} />{' '}
      <Choice
        label="beside other days"
        word={beside ? `beside ${question.beside === 'year' ? 'a year ago' : 'as many before'}` : 'beside nothing'}
        quiet={!beside}
        hint={beside ? readDays(beside) : undefined}
      >
        <Menu.Item onClick={() => set({ beside: 'before' })}>beside as many days before</Menu.Item>
        <Menu.Item onClick={() => set({ beside: 'year' })}>beside the same days of the week a year ago</Menu.Item>
        <Menu.Item onClick={() => set({ beside: null })}>beside nothing</Menu.Item>
      </Choice>{' '}
      <AsMeant meant={question.meant} onChange={(meant) => set({ meant })} />
      {where.map((only, i) => (
        <span key={`${only.by} ${String(only.not)}`} className={css.only}>
          {only.not ? 'without' : 'only'} {titleOf(only.by)}{' '}
          <b>{only.is.map((v) => (v === '' ? nothingOf(only.by) : (asked[i]?.[v] ?? v))).join(', ')}</b>
          <UnstyledButton
            aria-label={`all of ${titleOf(only.by)} again`}
            onClick={() => set({ where: where.filter((_, n) => n !== i) })}
          >
            ×
          </UnstyledButton>
        </span>
      ))}
    </div>
  );
}

const Means = ({ of }: { of: Measure }) =>
  MEASURES[of].means === MEASURES[of].title ? null : <span className="quiet">{MEASURES[of].means}</span>;

function Dimensions({
  taken,
  deeper,
  onPick,
}: {
  taken: readonly Dimension[];
  deeper: boolean;
  onPick: (dimension: Dimension) => void;
}) {
  const plan = usePlan();
  return (
    <div className={css.groups}>
      {dimensionsOf(plan.data?.fields ?? [], plan.data?.otherKeys ?? []).map(([group, all]) => (
        <div key={group}>
          <Menu.Label>{group}</Menu.Label>
          {all
            .filter(([d]) => !taken.includes(d) && !(deeper && isTime(d) && taken.some(isTime)))
            .map(([d, title]) => (
              <Menu.Item key={d} onClick={() => onPick(d)}>
                {title}
              </Menu.Item>
            ))}
        </div>
      ))}
    </div>
  );
}

function Days({
  period,
  days,
  onChange,
}: {
  period: Period;
  days: { from: string; to: string };
  onChange: (period: Period) => void;
}) {
  const [opened, setOpened] = useState(false);
  const [own, setOwn] = useState(days);
  const pick = (next: Period) => {
    setOpened(false);
    onChange(next);
  };
  return (
    <Popover opened={opened} onChange={setOpened} position="bottom-start" trapFocus returnFocus>
      <Popover.Target>
        <UnstyledButton
          className={css.word}
          aria-label={`days: ${readPeriod(period)}`}
          title={readDays(days)}
          onClick={() => {
            setOwn(days);
            setOpened(!opened);
          }}
        >
          {readPeriod(period)}
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown className={css.days}>
        {PERIODS.map(([title, p]) => (
          <UnstyledButton key={title} onClick={() => pick(p)}>
            {title}
          </UnstyledButton>
        ))}
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (own.from <= own.to) pick(own);
          }}
        >
          <TextInput
            type="date"
            size="xs"
            label="from"
            required
            value={own.from}
            onChange={(e) => setOwn({ ...own, from: e.target.value })}
          />
          <TextInput
            type="date"
            size="xs"
            label="to"
            required
            value={own.to}
            error={own.from > own.to ? 'before the first' : undefined}
            onChange={(e) => setOwn({ ...own, to: e.target.value })}
          />
          <UnstyledButton type="submit">these days</UnstyledButton>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
