import { settingName } from '../lib/switches';

/** Where a text stands on an element: a slot, a custom parameter, or a switch of the account. */
export function Place({ kind, name }: { kind: string; name: string }) {
  if (kind === 'custom') return <span className="mono">{name}</span>;
  return kind === 'setting' ? settingName(name) : kind;
}
