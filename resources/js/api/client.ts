import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schema = components['schemas'];

/** What the server said went wrong, in words for the person at the screen. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

type Listener = () => void;
const expired = new Set<Listener>();

/** Calls back when a call finds that the session has ended. */
export function onSessionEnd(listener: Listener): () => void {
  expired.add(listener);
  return () => void expired.delete(listener);
}

function xsrf(): string {
  const match = /(?:^|; )XSRF-TOKEN=([^;]*)/.exec(document.cookie);
  return match?.[1] ? decodeURIComponent(match[1]) : '';
}

const ours: Middleware = {
  onRequest({ request }) {
    request.headers.set('Accept', 'application/json');
    request.headers.set('X-XSRF-TOKEN', xsrf());
    return request;
  },
  async onResponse({ response, request }) {
    if (response.ok) return undefined;
    const body: unknown = await response.json().catch(() => null);
    const message =
      body && typeof body === 'object' && 'message' in body && typeof body.message === 'string'
        ? body.message
        : `The server answered ${response.status}. Try again.`;
    if ((response.status === 401 || response.status === 419) && !request.url.endsWith('/session'))
      expired.forEach((call) => call());
    throw new ApiError(response.status, message);
  },
  onError() {
    return new ApiError(0, 'The server can’t be reached. Nothing was lost; try again when it is back.');
  },
};

export const api = createClient<paths>({ baseUrl: '/api/v1', credentials: 'same-origin' });
api.use(ours);

/** The data of an answer; errors have been thrown by then. */
export async function data<T>(call: Promise<{ data?: T }>): Promise<T> {
  return (await call).data as T;
}

/** What is sent before anybody is signed in needs a token against forged requests first. */
async function withToken<T>(call: () => Promise<{ data?: T }>): Promise<T> {
  await fetch('/sanctum/csrf-cookie', { credentials: 'same-origin' });
  return data(call());
}

/** True: a code of the second factor is needed too. */
export async function signIn(email: string, password: string): Promise<boolean> {
  return 'needs' in (await withToken(() => api.POST('/session', { body: { email, password } })));
}

export const askForLink = (email: string) => withToken(() => api.POST('/password/forgotten', { body: { email } }));

export const lookAtLink = (token: string) => withToken(() => api.POST('/invitations/look', { body: { token } }));

export const acceptLink = (body: { token: string; name: string; email: string; password: string }) =>
  withToken(() => api.POST('/invitations/accept', { body }));

export const resetPassword = (email: string, token: string, password: string) =>
  withToken(() => api.POST('/password/reset', { body: { email, token, password } }));
