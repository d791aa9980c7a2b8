import { Modal } from '@mantine/core';
import { Fragment } from 'react';
import css from './shell.module.css';

const KEYS: [string, [string, string][]][] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'find anything'],
      ['1 … 6', 'go to a section'],
      ['?', 'these keys'],
    ],
  ],
  [
    'Accounts',
    [
      ['↑ ↓', 'move'],
      ['→ ←', 'open and close; to the parent'],
      ['Enter', 'trace an ad, open a campaign'],
      ['/', 'filter'],
      ['b', 'only broken ads'],
      ['c', 'bring the account in line'],
      ['n p', 'next and previous finding'],
      ['f', 'mend the finding: drafts a change'],
      ['[ ]', 'previous and next account'],
      ['Ctrl C', 'copy the row as cells'],
    ],
  ],
  [
    'Trace',
    [
      ['j k', 'next and previous ad of the group'],
      ['d', 'next device'],
      ['f', 'try the fix of a finding'],
      ['m', 'make what is tried a change'],
    ],
  ],
  ['Changes', [['a', 'apply the change']]],
  [
    'Platforms',
    [
      ['/', 'search the tokens'],
      ['w', 'write one of your own from this one'],
    ],
  ],
];

export function KeysHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys" size="sm">
      <dl className={css.keys}>
        {KEYS.map(([where, keys]) => (
          <Fragment key={where}>
            <h3>{where}</h3>
            {keys.map(([key, what]) => (
              <Fragment key={key}>
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{what}</dd>
              </Fragment>
            ))}
          </Fragment>
        ))}
      </dl>
    </Modal>
  );
}
