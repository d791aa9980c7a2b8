import { Modal } from '@mantine/core';
import { Fragment } from 'react';
import css from './shell.module.css';

const KEYS: [string, [string, string][]][] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'find anything'],
      ['0 … 9', 'go to a section'],
      ['Tab ← →', 'to a URL, and along its pieces; Enter goes to where one comes from'],
      ['?', 'these keys'],
    ],
  ],
  [
    'Audit',
    [
      ['↑ ↓', 'move along the causes'],
      ['Enter', 'trace an ad that shows it'],
      ['c', 'bring its ads in line'],
      ['a', 'let it be, until when and why'],
      ['n', 'only what is new since yesterday'],
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
      ['v', 'columns: what arrives, or the parts of names'],
      ['Space', 'choose the row; with Shift and ↑ ↓ several'],
      ['c', 'bring what is chosen, found, or all in line'],
      ['p', 'give the chosen campaigns or groups a plan of their own'],
      ['e', 'edit texts of what is chosen, found, or of all'],
      ['Esc', 'choose none'],
      ['n p', 'next and previous finding'],
      ['f', 'mend the finding: drafts a change'],
      ['[ ]', 'previous and next account'],
      ['Ctrl C', 'copy the row as cells'],
    ],
  ],
  [
    'Sheets that are brought in',
    [
      ['Tab', 'to a column; type to choose what it means'],
      ['r', 'read every row'],
      ['b', 'bring in what they make'],
    ],
  ],
  [
    'Trace',
    [
      ['j k', 'next and previous ad of the group'],
      ['d', 'next device'],
      ['f', 'try the fix of a finding'],
      ['m', 'make what is tried a change'],
      ['g', 'click the live ad for real'],
      ['Ctrl Space', 'in a text: the tokens that work there'],
    ],
  ],
  [
    'Changes',
    [
      ['a', 'try it, apply the rest, go on'],
      ['A', 'the same for all that were drafted together'],
      ['o', 'open the next sample'],
      ['y n', 'approve; send it back with a reason'],
      ['h e', 'hold it; end it here'],
      ['x', 'take it back'],
      ['d r', 'drop it before it has begun; work it out again'],
      ['j k', 'next and previous change'],
      ['l', 'the ledger'],
      ['u', 'what changed outside: Space chooses, y accepts, b puts back'],
    ],
  ],
  [
    'Results',
    [
      ['↑ ↓', 'move along the lines'],
      ['→ ←', 'open and close a line; to the one above'],
      ['Enter', 'the sessions behind the line'],
      ['o x', 'only this line; without it'],
      ['[ ]', 'count what stands in the column before, after'],
      ['b', 'beside as many days before, or nothing'],
      ['Enter ⌫', 'in what did not arrive: down to a line, up again'],
      ['Ctrl C', 'copy the line as cells; with Shift all lines'],
    ],
  ],
  [
    'Platforms',
    [
      ['/', 'search the tokens'],
      ['w', 'write one of your own from this one; tell of a tracker'],
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
