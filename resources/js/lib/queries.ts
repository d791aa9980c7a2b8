import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';

/** What is asked of the server, by what it shows. */
type Shown =
  | 'accounts'
  | 'advice'
  | 'agreed'
  | 'agreement'
  | 'apart'
  | 'arrival-totals'
  | 'arrivals'
  | 'change'
  | 'changes'
  | 'client'
  | 'connections'
  | 'sites'
  | 'site-files'
  | 'site-file'
  | 'senders'
  | 'numbers'
  | 'reading'
  | 'past-day'
  | 'way'
  | 'differences'
  | 'edit'
  | 'filters'
  | 'findings'
  | 'intake'
  | 'intake-problems'
  | 'intakes'
  | 'ledger'
  | 'link'
  | 'links'
  | 'feeds'
  | 'feed'
  | 'feed-trial'
  | 'feed-drafts'
  | 'feed-draft'
  | 'link-looks'
  | 'link-whole'
  | 'short-hosts'
  | 'code'
  | 'caught'
  | 'balance'
  | 'shift'
  | 'channel-trial'
  | 'composed-name'
  | 'read-names'
  | 'word-reach'
  | 'word-uses'
  | 'sheet-maps'
  | 'new-second-factor'
  | 'node'
  | 'outside'
  | 'people'
  | 'person'
  | 'picture'
  | 'plan'
  | 'plan-differences'
  | 'plan-revisions'
  | 'plan-would'
  | 'platform'
  | 'platforms'
  | 'preview'
  | 'results'
  | 'result-views'
  | 'counting'
  | 'rows'
  | 'rules'
  | 'running'
  | 'search'
  | 'session'
  | 'then'
  | 'trace'
  | 'tracker-trial'
  | 'trackers'
  | 'trial'
  | 'troubles'
  | 'trouble-ads'
  | 'writes';

/** The key that an answer is kept under: what it shows, and of what. */
export const keyOf = (shown: Shown, ...of: unknown[]) => [shown, ...of];

const PROOF = ['accounts', 'rows', 'trace', 'findings', 'picture', 'troubles'] as const;

/** What is asked anew when something has changed. */
const SHOWN_BY = {
  /** what must arrive */
  plan: ['plan', 'advice', 'preview', ...PROOF],
  /** what became of the ads */
  proof: PROOF,
  /** what an account says: written by us, or imported */
  texts: ['connections', 'outside', 'apart', 'node', 'then', 'past-day', 'ledger', 'differences', ...PROOF],
  /** a change was begun, or took a step */
  change: ['change', 'changes', 'writes', 'outside', 'running'],
  work: ['running'],
  /** what to do with what came from outside */
  outside: ['outside', 'accounts', 'running'],
  connections: ['connections'],
  sites: ['sites', 'site-files', 'site-file'],
  links: ['links', 'link-looks', 'link-whole'],
  feeds: ['feeds', 'feed-drafts'],
  'short-hosts': ['short-hosts'],
  'result-views': ['result-views'],
  counting: ['counting', 'results', 'arrivals', 'way'],
  visitors: ['arrival-totals', 'results', 'way'],
  look: ['change'],
  rules: ['rules', 'change'],
  filters: ['filters'],
  intakes: ['intakes'],
  agreed: ['agreed', 'plan', 'word-uses', 'caught', 'preview', ...PROOF],
  'sheet-maps': ['sheet-maps', 'intake'],
  platforms: ['platform', 'platforms'],
  trackers: ['trackers', 'balance'],
  troubles: ['troubles'],
  people: ['people'],
  person: ['person', 'session'],
} as const satisfies Record<string, readonly Shown[]>;

export type Changed = keyof typeof SHOWN_BY;

/** Says what has changed; all that shows it is asked for anew. */
export function useChanged(): (...what: Changed[]) => void {
  const queries = useQueryClient();
  return useCallback(
    (...what) => {
      for (const shown of new Set(what.flatMap((w): readonly Shown[] => SHOWN_BY[w])))
        void queries.invalidateQueries({ queryKey: keyOf(shown) });
    },
    [queries],
  );
}
