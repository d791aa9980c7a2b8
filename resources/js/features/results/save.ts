import type { Schema } from '../../api/client';
import { api } from '../../api/client';

/** Has the lines made a sheet, and hands it to the browser to keep. */
export async function save(client: number, body: Schema['ResultsBody']): Promise<void> {
  const { data, response } = await api.POST('/clients/{client}/results/file', {
    params: { path: { client } },
    body,
    parseAs: 'blob',
  });
  if (!data) throw new Error('The sheet could not be made. Try again.');
  const name = /filename="?([^";]+)/.exec(response.headers.get('Content-Disposition') ?? '')?.[1] ?? 'results.csv';
  const link = document.createElement('a');
  link.href = URL.createObjectURL(data as unknown as Blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
