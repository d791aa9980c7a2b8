import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { keyOf } from '../../lib/queries';
import { useHere } from '../../lib/useClient';
import { clickFields, type Document } from './document';

/** What a click's fields hold until a person says otherwise. */
const WORDS: Record<string, string> = {
  device: 'mobile',
  network: 'search',
  'keyword.match': 'phrase',
  'keyword.text': 'blue & white',
  'click.id': 'Q7f-2x',
  'publisher.name': 'The Gazette',
  'click.random': '884213',
};

export type Texts = Record<string, Record<string, string>>;

/** One element a level, with texts as they are being typed. */
export function elementsOf(document: Document, texts: Texts, type?: string) {
  const of = type ?? document.campaignTypes[0];
  return document.levels.map((l) => ({
    level: l.id,
    name: `${l.label} One`,
    ...(l.role === 'campaign' && of ? { type: of } : {}),
    slots: texts[l.id] ?? {},
  }));
}

/** The click's fields, as a person has set them or as they begin. */
export function clickOf(document: Document, context: Record<string, string>): Record<string, string> {
  return Object.fromEntries(clickFields(document).map((f) => [f, context[f] ?? WORDS[f] ?? 'word']));
}

/** A click on a platform as its document stands: what is wrong with that, or what the click sends. */
export function useTrial(text: string, nodes: ReturnType<typeof elementsOf>, click: Record<string, string>) {
  const { client } = useHere();
  return useQuery({
    queryKey: keyOf('trial', client.id, text, nodes, click),
    queryFn: () =>
      data(
        api.POST('/clients/{client}/platforms/trial', {
          params: { path: { client: client.id } },
          body: { text, nodes, context: click },
        }),
      ),
    placeholderData: keepPreviousData,
    enabled: text !== '',
    retry: false,
    staleTime: 60_000,
  });
}
