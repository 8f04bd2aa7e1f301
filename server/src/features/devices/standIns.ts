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
const MOST_SOCKETS = 40;
const BATCH_MS = 100;
const UNIT = { dynamometer: 'N', inclinometer: 'deg', 'contact-mat': 'ms' } as const;
/** What a stand-in plays around when nobody says. */
const USUAL = { dynamometer: 200, inclinometer: 40, 'contact-mat': 20 } as const;

type Timed = { at: number; message: DeviceMessage };

/** A whole recording as messages at their times in ms. */
function recording(kind: DeviceKind, about: number, seed: number): Timed[] {
  if (kind === 'contact-mat') {
    const events = matEvents(seed, about);
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
  socket.on('message', (data) => {
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
  socket.on('close', silence);
  socket.on('error', silence);
}

/** A page of this address, or a program without an origin; a page from elsewhere is turned away. */
function sameOrigin(request: IncomingMessage): boolean {
  const { origin, host } = request.headers;
  return origin === undefined || URL.parse(origin)?.host === host;
}

/**
 * Simulated devices at /devices/<kind>, speaking the protocol of docs/devices.md. They hold no data of anybody. Returns
 * what ends all of them.
 */
export function attachStandIns(server: Server): () => void {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: 4096 });
  const refuse = (socket: Duplex, status: string) =>
    socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
  server.on('upgrade', (request, socket, head) => {
    const name = PATH.exec(request.url?.split('?')[0] ?? '')?.[1];
    const kind = deviceKindSchema.safeParse(name);
    if (!kind.success) refuse(socket, '404 Not Found');
    else if (!sameOrigin(request)) refuse(socket, '403 Forbidden');
    else if (sockets.clients.size >= MOST_SOCKETS) refuse(socket, '503 Service Unavailable');
    else sockets.handleUpgrade(request, socket, head, (ws) => serve(ws, kind.data));
  });
  return () => sockets.clients.forEach((client) => client.terminate());
}
