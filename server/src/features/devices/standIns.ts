import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import {
  angleTrace,
  DEVICE_PROTOCOL,
  deviceCommandSchema,
  deviceKindSchema,
  forceTrace,
  matEvents,
  SAMPLE_HZ,
} from '@yonder/core/devices';
import type { DeviceKind, DeviceMessage } from '@yonder/core/devices';
import type { WebSocket } from 'ws';
import { WebSocketServer } from 'ws';

const PATH = /^\/devices\/([a-z-]+)$/;
const MOST_SOCKETS = 200;
/** Connections one account may hold: a page has one, a few may be open. */
const MOST_PER_ACCOUNT = 4;
/** A connection on which nobody said anything for so long is closed. */
const IDLE_MS = 10 * 60 * 1000;
/** Hops a stand-in plays at most. */
const MOST_HOPS = 60;
const BATCH_MS = 100;
const UNIT = { dynamometer: 'N', inclinometer: 'deg', 'contact-mat': 'ms' } as const;
/** What a stand-in plays around when nobody says. */
const USUAL = { dynamometer: 200, inclinometer: 40, 'contact-mat': 20 } as const;

type Timed = { at: number; message: DeviceMessage };

/** A whole recording as messages at their times in ms. */
function recording(kind: DeviceKind, about: number, seed: number): Timed[] {
  if (kind === 'contact-mat') {
    const events = matEvents(seed, Math.min(about, MOST_HOPS));
    const last = events.at(-1)?.t ?? 0;
    return [
      ...events.map(({ t, down }) => ({ at: t, message: { type: 'contact' as const, t, down } })),
      { at: last + BATCH_MS, message: { type: 'end' } },
    ];
  }
  const samples = kind === 'dynamometer' ? forceTrace(seed, about) : angleTrace(seed, about);
  const size = (BATCH_MS / 1000) * SAMPLE_HZ;
  const batches = Array.from({ length: Math.ceil(samples.length / size) }, (_, i): Timed => {
    const values = samples.slice(i * size, (i + 1) * size).map((v) => Math.round(v * 100) / 100);
    return { at: (i + 1) * BATCH_MS, message: { type: 'samples', t: i * BATCH_MS, values } };
  });
  return [...batches, { at: batches.length * BATCH_MS, message: { type: 'end' } }];
}

/** One stand-in on one socket: says hello, plays a recording on "start", falls silent on "stop". */
function serve(socket: WebSocket, kind: DeviceKind): void {
  let timers: NodeJS.Timeout[] = [];
  const send = (message: DeviceMessage) => socket.send(JSON.stringify(message));
  const silence = () => {
    timers.forEach(clearTimeout);
    timers = [];
  };
  send({
    type: 'hello',
    protocol: DEVICE_PROTOCOL,
    device: kind,
    unit: UNIT[kind],
    hz: SAMPLE_HZ,
    simulated: true,
  });
  let idle = setTimeout(() => socket.close(1000, 'nothing was said'), IDLE_MS);
  socket.on('message', (data) => {
    clearTimeout(idle);
    idle = setTimeout(() => socket.close(1000, 'nothing was said'), IDLE_MS);
    let json: unknown;
    try {
      json = JSON.parse(String(data));
    } catch {
      json = null;
    }
    const command = deviceCommandSchema.safeParse(json);
    if (!command.success) {
      socket.close(1008, 'not a command of this protocol');
      return;
    }
    silence();
    if (command.data.type === 'stop') return;
    const about = command.data.about ?? USUAL[kind];
    const seed = command.data.seed ?? Date.now() % 1_000_000;
    timers = recording(kind, about, seed).map(({ at, message }) => setTimeout(() => send(message), at));
  });
  const over = () => {
    clearTimeout(idle);
    silence();
  };
  socket.on('close', over);
  socket.on('error', over);
}

/** A page of this address; anything without an origin, or with another, is turned away. */
function sameOrigin(request: IncomingMessage): boolean {
  const { origin, host } = request.headers;
  return origin !== undefined && URL.parse(origin)?.host === host;
}

/** Who asks for a connection: the account's id, or null when nobody is signed in. */
export type SignedIn = (request: IncomingMessage) => Promise<string | null>;

/**
 * Simulated devices at /devices/<kind>, speaking the protocol of docs/devices.md, for signed-in pages of this address. They
 * hold no data of anybody. Returns what ends all of them.
 */
export function attachStandIns(server: Server, signedIn: SignedIn): () => void {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: 4096 });
  const held = new Map<string, number>();
  const count = (account: string, by: number) => held.set(account, (held.get(account) ?? 0) + by);
  const refuse = (socket: Duplex, status: string) =>
    socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
  const answer = async (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    const name = PATH.exec(request.url?.split('?')[0] ?? '')?.[1];
    const kind = deviceKindSchema.safeParse(name);
    if (!kind.success) return refuse(socket, '404 Not Found');
    if (!sameOrigin(request)) return refuse(socket, '403 Forbidden');
    const account = await signedIn(request);
    if (account === null) return refuse(socket, '401 Unauthorized');
    if (sockets.clients.size >= MOST_SOCKETS || (held.get(account) ?? 0) >= MOST_PER_ACCOUNT)
      return refuse(socket, '503 Service Unavailable');
    return sockets.handleUpgrade(request, socket, head, (ws) => {
      count(account, 1);
      ws.on('close', () => count(account, -1));
      serve(ws, kind.data);
    });
  };
  server.on('upgrade', (request, socket, head) => {
    socket.on('error', () => socket.destroy());
    answer(request, socket, head).catch(() => refuse(socket, '503 Service Unavailable'));
  });
  return () => sockets.clients.forEach((client) => client.terminate());
}
