import { createServer } from 'node:http';
import type { Server } from 'node:http';
import { analyseForce, analyseMat, deviceMessageSchema } from '@yonder/core/devices';
import type { DeviceMessage } from '@yonder/core/devices';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WebSocket } from 'ws';
import { attachStandIns } from './standIns.ts';

let server: Server;
let base: string;
let detach: () => void;
beforeAll(async () => {
  server = createServer();
  detach = attachStandIns(server, async ({ headers }) => headers.cookie ?? null);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.address();
  base = `127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
});
afterAll(() => {
  detach();
  server.close();
});

/** What a page of this address sends along, signed in as somebody. */
const signedIn = (cookie: string) => ({ origin: `http://${base}`, cookie });

/** Everything a device says from its hello to the end of one recording. */
function record(kind: string, command: object, most = Infinity): Promise<DeviceMessage[]> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(`ws://${base}/devices/${kind}`, { headers: signedIn(kind) });
    const heard: DeviceMessage[] = [];
    socket.on('error', reject);
    socket.on('message', (data) => {
      const message = deviceMessageSchema.parse(JSON.parse(String(data)));
      heard.push(message);
      if (message.type === 'hello') socket.send(JSON.stringify(command));
      if (message.type === 'end' || heard.length === most) {
        socket.close();
        resolve(heard);
      }
    });
  });
}

const refusal = (path: string, headers = {}) =>
  new Promise<number>((resolve) => {
    const socket = new WebSocket(`ws://${base}${path}`, { headers });
    socket.on('unexpected-response', (_request, response) => resolve(response.statusCode ?? 0));
    socket.on('error', () => undefined);
  });

describe('a simulated device', () => {
  it('says who it is, plays a force trace at its rate and ends it', async () => {
    const heard = await record('dynamometer', { type: 'start', about: 180, seed: 3 });
    expect(heard[0]).toMatchObject({ device: 'dynamometer', unit: 'N', hz: 100, simulated: true });
    const samples = heard.flatMap((m) => (m.type === 'samples' ? m.values : []));
    expect(samples).toHaveLength(600);
    expect(analyseForce(samples, 100)?.peak).toBeGreaterThan(150);
  });

  it('plays contacts of a mat', async () => {
    const heard = await record('contact-mat', { type: 'start', about: 4, seed: 3 });
    const events = heard.flatMap((m) => (m.type === 'contact' ? [m] : []));
    expect(analyseMat(events).hops).toBe(4);
  });

  it('hangs up on what it does not understand', async () => {
    const socket = new WebSocket(`ws://${base}/devices/inclinometer`, { headers: signedIn('kim') });
    const closed = new Promise<number>((resolve) => socket.on('close', resolve));
    socket.on('open', () => socket.send('{"type":"explode"}'));
    expect(await closed).toBe(1008);
  });

  it('plays no more than it should, and refuses a command beyond its bounds', async () => {
    const heard = await record('contact-mat', { type: 'start', about: 5000, seed: 3 }, 5);
    expect(heard.length).toBe(5);
    const socket = new WebSocket(`ws://${base}/devices/dynamometer`, { headers: signedIn('lee') });
    const closed = new Promise<number>((resolve) => socket.on('close', resolve));
    socket.on('open', () => socket.send('{"type":"start","about":1000000}'));
    expect(await closed).toBe(1008);
  });

  it('is for signed-in pages of this address, a few at a time', async () => {
    expect(await refusal('/devices/dynamometer', { origin: `http://${base}` })).toBe(401);
    expect(await refusal('/devices/dynamometer', { cookie: 'kim' })).toBe(403);
    const open = await Promise.all(
      [1, 2, 3, 4].map(
        () =>
          new Promise<WebSocket>((resolve) => {
            const socket = new WebSocket(`ws://${base}/devices/dynamometer`, { headers: signedIn('ada') });
            socket.on('open', () => resolve(socket));
          }),
      ),
    );
    expect(await refusal('/devices/dynamometer', signedIn('ada'))).toBe(503);
    for (const socket of open) socket.terminate();
  });

  it('is not there under another name, nor for a page from elsewhere', async () => {
    expect(await refusal('/devices/toaster')).toBe(404);
    expect(await refusal('/devices/dynamometer', { Origin: 'https://elsewhere.example' })).toBe(403);
  });
});
