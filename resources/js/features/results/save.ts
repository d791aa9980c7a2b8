import type { Schema } from '../../api/client';
import { api } from '../../api/client';
import { saved } from '../../lib/saved';

/** Has the lines made a sheet, and hands it to the browser to keep. */
export const save = (client: number, body: Schema['ResultsBody']): Promise<void> =>
  saved(
    api.POST('/clients/{client}/results/file', { params: { path: { client } }, body, parseAs: 'blob' }),
    'results.csv',
  );
