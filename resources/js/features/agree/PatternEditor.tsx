import { Button, Checkbox, TagsInput, TextInput } from '@mantine/core';
import { withWordLine, wordsOf, type NamePart, type Pattern } from './names';
import css from './agree.module.css';

const FOR = [
  ['levels', 'Levels', 'campaign, group, ad, or a level’s own name'],
  ['types', 'Types of campaigns', 'all'],
  ['families', 'Kinds of platforms', 'all'],
  ['platforms', 'Platforms', 'all'],
] as const;

interface Props {
  pattern: Pattern;
  onChange?: (pattern: Pattern) => void;
  onOut: () => void;
}

/** A pattern: for which elements, and the parts of their names in order. */
export function PatternEditor({ pattern, onChange, onOut }: Props) {
  const readOnly = !onChange;
  const set = (to: Partial<Pattern>) => onChange?.({ ...pattern, ...to });
  const part = (at: number, to: NamePart) => set({ parts: pattern.parts.map((p, i) => (i === at ? to : p)) });
  return (
    <section aria-label="the pattern" className={css.pattern}>
      <div className={css.patternHead}>
        <TextInput
          size="xs"
          label="Called"
          value={pattern.title ?? ''}
          readOnly={readOnly}
          onChange={(e) => set({ title: e.target.value })}
        />
        <TextInput
          size="xs"
          w={90}
          label="Between parts"
          value={pattern.separator}
          readOnly={readOnly}
          onChange={(e) => set({ separator: e.target.value })}
        />
        {FOR.map(([key, label, placeholder]) => (
          <TagsInput
            key={key}
            size="xs"
            label={label}
            placeholder={(pattern.for?.[key] ?? []).length === 0 ? placeholder : undefined}
            value={pattern.for?.[key] ?? []}
            readOnly={readOnly}
            onChange={(list) => {
              const next = { ...pattern.for, [key]: list };
              if (list.length === 0) delete next[key];
              set({ for: next });
            }}
          />
        ))}
      </div>
      <table className={css.parts}>
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">words</th>
            <th scope="col">or a form</th>
            <th scope="col">if nothing is said</th>
            <th scope="col">may be left out</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {pattern.parts.map((p, at) => (
            <tr key={at}>
              <td>
                <input
                  className={`${css.input} mono`}
                  aria-label={`part ${at + 1}`}
                  value={p.name}
                  readOnly={readOnly}
                  spellCheck={false}
                  onChange={(e) => part(at, { ...p, name: e.target.value })}
                />
              </td>
              <td>
                <input
                  className={`${css.input} mono`}
                  aria-label={`words of ${p.name}`}
                  placeholder="any"
                  defaultValue={wordsOf(p).join(', ')}
                  readOnly={readOnly}
                  spellCheck={false}
                  onBlur={(e) => e.target.value !== wordsOf(p).join(', ') && part(at, withWordLine(p, e.target.value))}
                />
              </td>
              <td>
                <input
                  className={`${css.input} mono`}
                  aria-label={`form of ${p.name}`}
                  placeholder="a regular expression"
                  value={p.matches ?? ''}
                  readOnly={readOnly}
                  spellCheck={false}
                  onChange={(e) => part(at, { ...p, matches: e.target.value || undefined })}
                />
              </td>
              <td>
                <input
                  className={`${css.input} mono`}
                  aria-label={`what ${p.name} says if nothing is said`}
                  value={p.default ?? ''}
                  readOnly={readOnly}
                  spellCheck={false}
                  onChange={(e) => part(at, { ...p, default: e.target.value || undefined })}
                />
              </td>
              <td>
                <Checkbox
                  size="xs"
                  aria-label={`${p.name} may be left out`}
                  checked={p.optional ?? false}
                  disabled={readOnly}
                  onChange={(e) => part(at, { ...p, optional: e.target.checked || undefined })}
                />
              </td>
              <td>
                {!readOnly && pattern.parts.length > 1 && (
                  <Button
                    size="compact-xs"
                    variant="subtle"
                    color="gray"
                    aria-label={`take ${p.name} out`}
                    onClick={() => set({ parts: pattern.parts.filter((_, i) => i !== at) })}
                  >
                    out
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!readOnly && (
        <div className={css.add}>
          <Button
            size="compact-xs"
            variant="subtle"
            onClick={() => set({ parts: [...pattern.parts, { name: `part_${pattern.parts.length + 1}` }] })}
          >
            Add a part
          </Button>
          <Button size="compact-xs" variant="subtle" color="gray" onClick={onOut}>
            Take the pattern out
          </Button>
        </div>
      )}
    </section>
  );
}
