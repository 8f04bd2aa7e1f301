// A signed-in client of the API for trials.

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
