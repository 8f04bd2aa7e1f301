import { ConnectionRefusedError, UniqueConstraintError } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { readConfig } from './config.ts';
import { toProblem } from './http/errors.ts';

const BASE = { DATABASE_URL: 'postgres://u:p@127.0.0.1/x', YONDER_SESSION_SECRET: 'long enough, really' };

describe('the environment', () => {
  it('needs a database and a secret; the rest has defaults', () => {
    expect(readConfig(BASE)).toMatchObject({
      host: '127.0.0.1',
      port: 4600,
      secureCookie: false,
      signInLimit: 10,
    });
  });
  it('names what is wrong and never repeats its value', () => {
    const read = () => readConfig({ ...BASE, PORT: '99999', YONDER_SESSION_SECRET: 'short' });
    expect(read).toThrow(/PORT/);
    expect(read).toThrow(/YONDER_SESSION_SECRET/);
    expect(read).not.toThrow(/99999|short"/);
  });
});

describe('errors on their way out', () => {
  it('a lost database is 503, a double 409, anything unknown 500 without its message', () => {
    expect(toProblem(new ConnectionRefusedError(new Error('x')))).toMatchObject({
      code: 'unavailable',
      status: 503,
    });
    expect(toProblem(new UniqueConstraintError({}))).toMatchObject({ code: 'already-exists', status: 409 });
    const unknown = toProblem(new Error('row (Mira, pain 7) is odd'));
    expect(JSON.stringify(unknown.toDocument('id'))).not.toContain('Mira');
    expect(unknown.status).toBe(500);
  });
});
