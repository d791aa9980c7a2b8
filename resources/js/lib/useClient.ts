import { createContext, useContext } from 'react';
import type { Schema } from '../api/client';

export type Client = Schema['Session']['clients'][number];

export interface Here {
  session: Schema['Session'];
  client: Client;
  mayEdit: boolean;
  /** the address of a page of the client */
  to: (page: string) => string;
}

export const HereContext = createContext<Here | null>(null);

/** Who is here, and for which client. */
export function useHere(): Here {
  const here = useContext(HereContext);
  if (!here) throw new Error('outside of a client');
  return here;
}
