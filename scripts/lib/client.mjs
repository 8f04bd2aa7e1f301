// A signed-in client of the API for trials and timings.
import { randomUUID } from 'node:crypto';

export const ACCOUNT = { email: 'rowan@northfell.example', password: 'ridge-walk' };

/** One plain drill of a routine that everybody may do; it still needs an id of its own. */
export const ITEM = {
  drill: 'cat-camel',
  side: 'both',
  sets: 1,
  amount: 8,
  measure: 'reps',
  restSeconds: 10,
  setup: {},
};

/** Signs in, with headers of its own beside the usual ones; `raw` sends any text to any place. */
export async function clientOf(base, account, own = {}) {
  const response = await fetch(`${base}/api/v1/auth/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(account),
  });
  if (!response.ok) throw new Error(`not signed in: ${response.status}`);
  const { csrfToken } = await response.json();
  const headers = {
    Cookie: response.headers.get('set-cookie').split(';')[0],
    'X-CSRF-Token': csrfToken,
    'Content-Type': 'application/json',
    ...own,
  };
  const raw = (method, path, body, more = {}) =>
    fetch(`${base}/api/v1${path}`, {
      method,
      headers: { ...headers, ...more },
      ...(body === undefined ? {} : { body }),
    });
  const get = (path) => raw('GET', path);
  let topics;
  return {
    headers,
    raw,
    get,
    post: (path, body) => raw('POST', path, JSON.stringify(body)),
    /** Everything that can be asked at the gate, at whatever age. */
    topics: () =>
      (topics ??= get('/reference')
        .then((answer) => answer.json())
        .then(({ version }) => get(`/reference/${version}`))
        .then((answer) => answer.json())
        .then(({ gate, regions }) => [...gate, ...regions].map(({ id }) => id))),
  };
}

/** Answers every topic of the gate with "none of these"; one that is not asked at the athlete's age is refused, and left. */
export async function throughGate(client, athlete) {
  for (const topic of await client.topics()) {
    const body = { id: randomUUID(), topic, outcome: 'none', signs: [] };
    const { ok, status } = await client.post(`/athletes/${athlete}/gate`, body);
    if (!ok && status !== 400) throw new Error(`gate ${topic}: ${status}`);
  }
}
