import { Button } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { Schema } from '../../api/client';
import { Moves } from '../../components/Moves';
import { num } from '../../lib/numbers';
import { RuleEditor } from './RuleEditor';
import { line, moved, WAY_WORDS, waysOf, type Channels, type Test } from './channels';
import css from './agree.module.css';

const SHOWN = 6;

interface Props {
  channels: Channels;
  /** what each rule took; undefined: not known of rules that are being edited */
  caught?: Schema['Caught'];
  /** a click that is being tried */
  tried?: Schema['ChannelTrial'];
  onChange?: (channels: Channels) => void;
}

/** The rules as the rungs of a ladder: a click goes down until one holds. */
export function Ladder({ channels, caught, tried, onChange }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const most = Math.max(1, caught?.otherwise ?? 0, ...(caught?.rules ?? []));
  const looks = new Map(tried?.looks.map((l) => [l.rule, l]));
  const set = (rules: Channels['rules']) => onChange?.({ ...channels, rules });
  const taken = useRef<HTMLLIElement>(null);
  useEffect(() => {
    taken.current?.scrollIntoView({ block: 'nearest' });
  }, [tried?.rule]);
  return (
    <section className={css.ladder} aria-label="the rules">
      <ol>
        {channels.rules.map((rule, at) => {
          const look = looks.get(at);
          const takes = tried?.rule === at;
          return (
            <li
              key={at}
              ref={takes ? taken : undefined}
              className={css.rung}
              data-look={takes ? 'takes' : look ? 'passes' : undefined}
            >
              <span className={css.rungHead}>
                <span className={css.at}>{at + 1}</span>
                <b>{rule.channel}</b>
                <span className={css.caught}>
                  {caught && (
                    <>
                      <span style={{ width: `${((caught.rules[at] ?? 0) / most) * 60}px` }} />
                      {(caught.rules[at] ?? 0) > 0 && num(caught.rules[at]!)}
                    </>
                  )}
                </span>
                {onChange && (
                  <span className={css.acts}>
                    <Button size="compact-xs" variant="subtle" onClick={() => setOpen(open === at ? null : at)}>
                      {open === at ? 'close' : 'change'}
                    </Button>
                    <Moves
                      what={`rule ${at + 1}`}
                      at={at}
                      of={channels.rules.length}
                      onMove={(to) => set(moved(channels.rules, at, to))}
                      onOut={() => set(channels.rules.filter((_, i) => i !== at))}
                    />
                  </span>
                )}
              </span>
              {rule.all.map((test, i) => (
                <TestLine key={i} test={test} held={look?.tests[i]?.holds} />
              ))}
              {open === at && (
                <RuleEditor
                  rule={rule}
                  keys={[...Object.keys(channels.keys), 'family']}
                  onChange={(to) => set(channels.rules.map((r, i) => (i === at ? to : r)))}
                />
              )}
            </li>
          );
        })}
        <li className={css.rung} data-look={tried && tried.rule === null ? 'takes' : undefined}>
          <span className={css.rungHead}>
            <span className={css.at} />
            <b>{channels.otherwise}</b>
            <span className={css.caught}>
              {caught && (
                <>
                  <span style={{ width: `${(caught.otherwise / most) * 60}px` }} />
                  {caught.otherwise > 0 && num(caught.otherwise)}
                </>
              )}
            </span>
          </span>
          <span className="quiet">what no rule takes</span>
        </li>
      </ol>
      {onChange && (
        <Button
          size="xs"
          variant="subtle"
          onClick={() => {
            set([{ channel: 'New channel', all: [{ key: 'medium', in: ['new'] }] }, ...channels.rules]);
            setOpen(0);
          }}
        >
          Add a rule
        </Button>
      )}
    </section>
  );
}

/** The first words of many. */
function shortened(words: string): string {
  const list = words.split(', ').map((w) => w || 'nothing');
  return list.length <= SHOWN ? list.join(', ') : `${list.slice(0, SHOWN).join(', ')} and ${list.length - SHOWN} more`;
}

function TestLine({ test, held }: { test: Test; held?: boolean }) {
  return (
    <span className={css.test} data-held={held}>
      <span className="mono">{test.key}</span>{' '}
      {waysOf(test).map((way, i) => (
        <span key={way}>
          {i > 0 && ' or '}
          {WAY_WORDS[way]}{' '}
          <span className={css.wordsLine} title={line(test, way)}>
            {shortened(line(test, way)) || 'nothing'}
          </span>
        </span>
      ))}
      {waysOf(test).length === 0 && <span>is empty</span>}
    </span>
  );
}
