import type { Document } from './document';
import css from './platforms.module.css';

/** The steps from the landing URL to what the browser opens, as a line to follow. */
export function Assembly({ document: d }: { document: Document }) {
  const has = (kind: string) => d.slots.some((s) => s.kind === kind);
  const landing = d.slots.find((s) => s.kind === 'landing');
  const early = has('suffix') && d.assembly.suffixJoins === 'landing';
  const steps: { name: string; role: string; says: string }[] = [
    { name: 'landing URL', role: 'landing', says: landing?.tokens ? 'its tokens are filled' : 'as it stands' },
    ...(early ? [{ name: 'suffix', role: 'suffix', says: 'joins the landing URL' }] : []),
    ...(d.autoTags
      ? [
          {
            name: 'its own tags',
            role: 'auto-tag',
            says:
              d.autoTags.tags.map((t) => t.key).join(', ') +
              `; ${d.autoTags.default === 'off' ? 'off unless switched on' : d.autoTags.default}`,
          },
        ]
      : []),
    ...(d.clickId
      ? [
          {
            name: 'click ID',
            role: 'click-id',
            says: `${d.clickId.parameter}, ${whenOn(d.clickId)}`,
          },
        ]
      : []),
    ...(has('template')
      ? [
          {
            name: 'template',
            role: 'text',
            says: [
              d.assembly.mendsQuestionMark && 'mends a second ?',
              d.assembly.mendsFragment && 'keeps the fragment last',
              !d.assembly.mendsQuestionMark && !d.assembly.mendsFragment && 'mends nothing',
            ]
              .filter(Boolean)
              .join(', '),
          },
        ]
      : []),
    ...(has('suffix') && !early ? [{ name: 'suffix', role: 'suffix', says: 'joins at the very end' }] : []),
    {
      name: 'browser',
      role: 'token',
      says: d.delivery.includes('parallel')
        ? (d.delivery[0] === 'sequence' ? 'through every hop, or' : '') +
          ' straight to the page while hops are called behind its back'
        : 'goes through every hop',
    },
  ];
  return (
    <>
      <ol className={css.steps}>
        {steps.map((s) => (
          <li key={s.name + s.says} data-role={s.role}>
            <b>{s.name}</b>
            <span>{s.says}</span>
          </li>
        ))}
      </ol>
      <p className={css.rest}>
        A space in a value becomes <code>{d.assembly.space}</code>.{' '}
        {!d.syntax
          ? 'It has no tokens: all text is sent as it stands.'
          : `A name it does not know ${d.syntax.unknown === 'keep' ? 'is sent as typed' : 'vanishes'}; ` +
            `capitals ${d.syntax.caseSensitive ? 'matter' : 'do not matter'}.`}
        {d.namesFreeze && ' Names stay as they were when an element was published.'}
      </p>
    </>
  );
}

function whenOn(clickId: NonNullable<Document['clickId']>): string {
  if (clickId.switch === 'always') return 'always';
  return clickId.default ? 'unless switched off' : 'if switched on';
}
