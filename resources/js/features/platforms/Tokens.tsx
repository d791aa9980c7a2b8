import { TextInput } from '@mantine/core';
import { useMemo, useRef, useState } from 'react';
import { useKeys } from '../../lib/useKeys';
import { gives, written, type Document } from './document';
import css from './platforms.module.css';

/** The token catalogue, searched as you type: by its own words, or by the neutral field. */
export function Tokens({ document }: { document: Document }) {
  const [words, setWords] = useState('');
  const box = useRef<HTMLInputElement>(null);
  useKeys(
    useMemo(
      () => ({
        '/': (e) => {
          e.preventDefault();
          box.current?.focus();
        },
      }),
      [],
    ),
  );
  const all = document.tokens.map((t) => ({
    token: t,
    written: written(document, t),
    gives: gives(t),
    where: t.campaignTypes ? t.campaignTypes.join(', ') : document.campaignTypes.length > 1 ? 'all types' : '',
  }));
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const found = all.filter((t) =>
    wanted.every((w) => `${t.written} ${t.gives} ${t.where} ${t.token.kind}`.toLowerCase().includes(w)),
  );
  return (
    <>
      <div className={css.tokensHead}>
        <h2 id="tokens">Its tokens</h2>
        {document.tokens.length > 0 && (
          <TextInput
            ref={box}
            size="xs"
            w={220}
            aria-label="search the tokens"
            placeholder="name, field, campaign type"
            rightSection={<kbd>/</kbd>}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
        )}
        <span className="quiet">{words ? `${found.length} of ${all.length}` : all.length || 'none'}</span>
      </div>
      {document.tokens.length > 0 && (
        <table className={css.tokens}>
          <thead>
            <tr>
              <th scope="col">typed</th>
              <th scope="col">gives</th>
              <th scope="col">on</th>
            </tr>
          </thead>
          <tbody>
            {found.map((t) => (
              <tr key={t.written} data-kind={t.token.kind}>
                <td className="mono">{t.written}</td>
                <td>{t.gives}</td>
                <td className="quiet">{t.where}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {found.length === 0 && words !== '' && (
        <p className="quiet">
          It has no token for that. Where a name is wanted, a custom parameter or fixed text can carry it.
        </p>
      )}
    </>
  );
}
