/** Bytes as the API takes them. */
export function base64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 32768) text += String.fromCharCode(...bytes.subarray(i, i + 32768));
  return btoa(text);
}

export const fileAsBase64 = async (file: File): Promise<string> => base64(new Uint8Array(await file.arrayBuffer()));
