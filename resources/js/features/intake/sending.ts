import { base64 } from '../../lib/base64';
import { api, data } from '../../api/client';

/** So much of a file goes in one request. */
const PART = 4 * 1024 * 1024;

/** Sends a file in parts; where the server has something else than was thought, it goes on from there. */
export async function send(
  client: number,
  intake: number,
  file: File,
  onProgress: (bytes: number) => void,
): Promise<void> {
  const created = await data(
    api.POST('/clients/{client}/intakes/{intake}/files', {
      params: { path: { client, intake } },
      body: { name: file.name, bytes: file.size },
    }),
  );
  let from = created.received;
  let stalled = 0;
  while (from < file.size) {
    const content = base64(new Uint8Array(await file.slice(from, from + PART).arrayBuffer()));
    const { received } = await data(
      api.PUT('/clients/{client}/intakes/{intake}/files/{file}', {
        params: { path: { client, intake, file: created.id } },
        body: { from, content },
      }),
    );
    stalled = received > from ? 0 : stalled + 1;
    if (stalled > 3) throw new Error(`${file.name} does not get through. Drop it again.`);
    from = received;
    onProgress(from);
  }
}
