// A signed-in client of the API for trials.
import { randomUUID } from 'node:crypto';
import { REGIONS } from '../../core/src/domain/index.ts';
import { bundledReference } from '../../core/src/reference/bundled.ts';
import { gateTopics } from '../../core/src/safety/index.ts';

export const ACCOUNT = { email: 'rowan@northfell.example', password: 'ridge-walk' };

/** Signs in; `raw` sends any text to any place. */
export async function clientOf(base, account) {
  const response = await fetch(`${base}/api/v1/auth/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(account),
  });
  if (!response.ok) throw new Error(`not signed in: ${response.status}`);
  const { csrfToken } = await response.json();
  const headers = { Cookie: response.headers.get('set-cookie').split(';')[0], 'X-CSRF-Token': csrfToken };
  const raw = (method, path, body, more = {}) =>
    fetch(`${base}/api/v1${path}`, {
      method,
      headers: { ...headers, 'Content-Type': 'application/json', ...more },
      ...(body === undefined ? {} : { body }),
    });
  return {
    raw,
    get: (path) => raw('GET', path),
    post: (path, body) => raw('POST', path, JSON.stringify(body)),
  };
}

/** Answers every topic of the gate with "none of these" for an athlete born on a day. */
export async function throughGate(client, athlete, birthDate, today) {
  for (const { id } of gateTopics(bundledReference, REGIONS, birthDate, today)) {
    const body = { id: randomUUID(), topic: id, outcome: 'none', signs: [] };
    const { ok, status } = await client.post(`/athletes/${athlete}/gate`, body);
    if (!ok) throw new Error(`gate ${id}: ${status}`);
  }
}
