/** What an account switches, in words. */
const NAMES: Record<string, string> = { clickId: 'click ID', autoTags: 'automatic tags', delivery: 'delivery' };

const CHOICES: Record<string, string> = { on: 'on', off: 'off', fill: 'fill', replace: 'replace', sequence: 'in sequence', parallel: 'in parallel' };

export const settingName = (setting: string): string => NAMES[setting] ?? setting;

export const choiceName = (choice: string): string => CHOICES[choice] ?? choice;

/** What one switch does to all ads of an account. */
export function switchWords({ setting, after }: { setting: string; after: string }, ads: number): string {
  const all = `for all ${ads.toLocaleString('en')} ads`;
  if (setting === 'autoTags' && after === 'fill') return `lets the platform’s automatic tags fill in keys that are missing, ${all}`;
  if (setting === 'autoTags' && after === 'replace') return `lets the platform’s automatic tags replace their keys, ${all}`;
  if (setting === 'delivery') return `delivers clicks ${choiceName(after)}, ${all}`;
  return `turns the ${settingName(setting)} ${choiceName(after)} ${all}`;
}
