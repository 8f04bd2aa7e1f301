import { hash } from '@node-rs/argon2';

/** argon2id with the parameters OWASP lists first for it: 19 MiB, two passes. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 });
}
