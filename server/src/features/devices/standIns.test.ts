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
  detach = attachStandIns(server);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.address();
  base = `127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
});
afterAll(() => {
  detach();
  server.close();
});

/** Everything a device says from its hello to the end of one recording. */
function record(kind: string, command: object): Promise<DeviceMessage[]> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(`ws://${base}/devices/${kind}`);
    const heard: DeviceMessage[] = [];
    socket.on('error', reject);
    socket.on('message', (data) => {
      const message = deviceMessageSchema.parse(JSON.parse(String(data)));
      heard.push(message);
      if (message.type === 'hello') socket.send(JSON.stringify(command));
      if (message.type === 'end') {
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
    const socket = new WebSocket(`ws://${base}/devices/inclinometer`);
    const closed = new Promise<number>((resolve) => socket.on('close', resolve));
    socket.on('open', () => socket.send('{"type":"explode"}'));
    expect(await closed).toBe(1008);
  });

  it('is not there under another name, nor for a page from elsewhere', async () => {
    expect(await refusal('/devices/toaster')).toBe(404);
    expect(await refusal('/devices/dynamometer', { Origin: 'https://elsewhere.example' })).toBe(403);
  });
});
