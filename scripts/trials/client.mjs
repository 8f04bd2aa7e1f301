// A signed-in client of the API for trials, and randomness that is the same for the same seed.

export const ACCOUNT = { email: 'rowan@northfell.example', password: 'ridge-walk' };

/** Numbers from 0 up to 1, always the same for a seed (mulberry32). */
export function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

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
