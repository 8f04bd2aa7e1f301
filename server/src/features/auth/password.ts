import { hash } from '@node-rs/argon2';
import common from 'fxa-common-password-list';
import { refuse } from '../../http/problem.ts';

/** argon2id with the parameters OWASP lists first for it: 19 MiB, two passes. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 });
}

/** Parts of a name or an address that are long enough to be recognised. */
const partsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((part) => part.length >= 4);

/** Throws when a new password is on the list of those tried first, or is made of the account's own name or address. */
export function checkPassword(
  path: string,
  password: string,
  { name, email }: { readonly name: string; readonly email: string },
): void {
  const plain = password.toLowerCase();
  const own = [...partsOf(name), ...partsOf(email.split('@')[0] ?? '')].find((part) => plain.includes(part));
  refuse([
    ...(common.test(plain)
      ? [{ path, message: 'this is one of the passwords tried first; choose another' }]
      : []),
    ...(own === undefined ? [] : [{ path, message: `leave your own name or address out of it ("${own}")` }]),
  ]);
}
