import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schema } from '../../api/client';
import { Notice } from '../../components/Notice';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { KeyWords } from './KeyWords';
import { Rooms } from './Rooms';
import { Saving } from './Saving';
import { useAgreement } from './useAgreement';
import { isInUse, type Words } from './words';
import css from './agree.module.css';

/** The words that are agreed on, key by key, with who uses each. */
export default function WordsPage() {
  const { client, mayEdit } = useHere();
  const of = useAgreement<Words>('words');
  const [shown, setShown] = useState<string | null>(null);
  const uses = useQuery({
    queryKey: keyOf('word-uses', client.id),
    queryFn: () =>
      data(api.GET('/clients/{client}/agreements/words/uses', { params: { path: { client: client.id } } })),
  });
  if (of.error) return <Notice>{of.error.message}</Notice>;
  if (!of.saved || !of.document || !uses.data) return null;
  const keys = [...new Set([...uses.data.keys.map((k) => k.key), ...Object.keys(of.document.keys)])];
  const key = shown !== null && keys.includes(shown) ? shown : keys[0];
  return (
    <div className={css.page}>
      <Rooms>
        <span style={{ flex: 1 }} />
        <Saving {...of} saved={of.saved} mayEdit={mayEdit} />
      </Rooms>
      <div className={css.words}>
        <div className={css.keys} role="tablist" aria-label="keys" aria-orientation="vertical">
          {keys.map((k) => (
            <KeyTab key={k} name={k} words={of.document!} uses={uses.data} isOn={k === key} onShow={setShown} />
          ))}
        </div>
        {key === undefined ? (
          <p className="quiet">There is no plan yet, so there is no key to agree on words for.</p>
        ) : (
          <KeyWords
            key={key}
            name={key}
            words={of.document}
            used={uses.data.keys.find((k) => k.key === key)?.words ?? []}
            today={of.saved.today}
            onChange={mayEdit ? of.set : undefined}
          />
        )}
      </div>
    </div>
  );
}

interface TabProps {
  name: string;
  words: Words;
  uses: Schema['WordUses'];
  isOn: boolean;
  onShow: (key: string) => void;
}

function KeyTab({ name, words, uses, isOn, onShow }: TabProps) {
  const list = words.keys[name] ?? [];
  const inUse = list.filter(isInUse).length;
  const strangers =
    list.length === 0
      ? 0
      : (uses.keys.find((k) => k.key === name)?.words.filter((w) => w.standing === 'unknown').length ?? 0);
  return (
    <button
      type="button"
      role="tab"
      aria-selected={isOn}
      className={`${css.keyTab} ${isOn ? css.on : ''}`}
      onClick={() => onShow(name)}
    >
      <span className="mono">{name}</span>
      <span className="quiet">
        {list.length === 0 ? 'anything' : inUse === 1 ? 'one word' : `${inUse} words`}
        {strangers > 0 && <b className={css.strange}> · {strangers} others arrive</b>}
      </span>
    </button>
  );
}
