import { api, data } from '../../api/client';
import { inParts } from '../../lib/parts';

/** Sends a file of an intake, and goes on where an earlier attempt ended. */
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
  const put = async (from: number, content: string) => {
    const { received } = await data(
      api.PUT('/clients/{client}/intakes/{intake}/files/{file}', {
        params: { path: { client, intake, file: created.id } },
        body: { from, content },
      }),
    );
    return received;
  };
  await inParts(file, created.received, put, onProgress);
}
