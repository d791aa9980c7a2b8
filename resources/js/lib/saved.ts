/** Hands a file that the server has made to the browser to keep, by the name that it came with. */
export async function saved(call: Promise<{ data?: unknown; response: Response }>, otherwise: string): Promise<void> {
  const { data, response } = await call;
  if (!data) throw new Error('The sheet could not be made. Try again.');
  const told = response.headers.get('Content-Disposition') ?? '';
  const anyLetters = /filename\*=utf-8''([^;]+)/i.exec(told)?.[1]; // RFC 6266 §4.3
  const name = anyLetters ? decodeURIComponent(anyLetters) : (/filename="?([^";]+)/.exec(told)?.[1] ?? otherwise);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(data as Blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
