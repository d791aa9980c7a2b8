import { base64 } from './base64';

/** So much of a file goes in one request. */
const PART = 4 * 1024 * 1024;

/** No part of it came through, again and again. */
const MOST_STALLED = 3;

/** What a file is called while its parts are on their way. */
export const nameOfFile = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, '0')).join('');

/**
 * Sends a file in parts. `put` answers how many bytes are there: where that is something else than was thought, it goes
 * on from there.
 */
export async function inParts(
  file: File,
  begin: number,
  put: (from: number, content: string) => Promise<number>,
  onProgress: (bytes: number) => void,
): Promise<void> {
  let from = begin;
  let stalled = 0;
  while (from < file.size) {
    const received = await put(from, base64(new Uint8Array(await file.slice(from, from + PART).arrayBuffer())));
    stalled = received > from ? 0 : stalled + 1;
    if (stalled > MOST_STALLED) throw new Error(`${file.name} does not get through. Choose it again.`);
    from = received;
    onProgress(from);
  }
}
