import { num } from './numbers';
/** What an account switches, in words. */
const NAMES: Record<string, string> = { clickId: 'click ID', autoTags: 'automatic tags', delivery: 'delivery' };

export const settingName = (setting: string): string => NAMES[setting] ?? setting;

/** What one switch does to all ads of an account. */
export function switchWords({ setting, after }: { setting: string; after: string }, ads: number): string {
  const all = `for all ${num(ads)} ads`;
  if (setting === 'autoTags' && after === 'fill')
    return `lets the platform’s automatic tags fill in keys that are missing, ${all}`;
  if (setting === 'autoTags' && after === 'replace')
    return `lets the platform’s automatic tags replace their keys, ${all}`;
  return `turns the ${settingName(setting)} ${after} ${all}`;
}
