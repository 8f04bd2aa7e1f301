import { vi } from 'vitest';

/** A request as the page sent it. */
export interface Sent {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

type Answer = { status: number; body?: unknown } | 'no answer';

/** Stands in for the server: notes every request and answers as the test says. */
export function fakeServer(answer: (sent: Sent) => Answer) {
  const sent: Sent[] = [];
  vi.stubGlobal('fetch', async (asked: Request | string) => {
    const input = typeof asked === 'string' ? new Request(new URL(asked, 'http://localhost')) : asked;
    const text = await input.clone().text();
    const one = {
      method: input.method,
      path: new URL(input.url).pathname.replace('/api/v1', ''),
      body: text ? (JSON.parse(text) as unknown) : null,
    };
    sent.push(one);
    const given = answer(one);
    if (given === 'no answer') throw new TypeError('network');
    return new Response(JSON.stringify(given.body ?? null), {
      status: given.status,
      headers: { 'Content-Type': 'application/json' },
    });
  });
  return sent;
}

/** A refusal as the server words it. */
export const problem = (status: number, code: string, detail = code) => ({
  status,
  body: { type: 'x', title: code, status, code, detail },
});
