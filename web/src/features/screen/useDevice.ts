import { deviceMessageSchema } from '@yonder/core/devices';
import type { DeviceKind } from '@yonder/core/devices';
import { useCallback, useEffect, useRef, useState } from 'react';

type Contact = { t: number; down: boolean };

/** A recording so far: samples of a trace, or switches of a mat. */
export interface Recording {
  readonly samples: readonly number[];
  readonly contacts: readonly Contact[];
}

export type DeviceState =
  | { kind: 'closed' }
  | { kind: 'opening' }
  | { kind: 'ready'; hz: number; simulated: boolean }
  | { kind: 'recording'; hz: number; simulated: boolean }
  | { kind: 'ended'; hz: number; simulated: boolean }
  | { kind: 'failed'; message: string };

const NOTHING: Recording = { samples: [], contacts: [] };

/** A device at this address, over the protocol of docs/devices.md. Closing the panel closes the socket. */
export function useDevice(kind: DeviceKind) {
  const [state, setState] = useState<DeviceState>({ kind: 'closed' });
  const [recording, setRecording] = useState<Recording>(NOTHING);
  const socket = useRef<WebSocket | null>(null);
  const hang = useCallback(() => {
    const open = socket.current;
    socket.current = null;
    open?.close();
  }, []);
  useEffect(() => hang, [hang]);

  const connect = useCallback(() => {
    hang();
    setState({ kind: 'opening' });
    setRecording(NOTHING);
    const { host, protocol } = window.location;
    const opened = new WebSocket(`${protocol === 'https:' ? 'wss' : 'ws'}://${host}/devices/${kind}`);
    socket.current = opened;
    opened.onmessage = (event) => {
      const parsed = deviceMessageSchema.safeParse(JSON.parse(String(event.data)));
      if (!parsed.success) {
        setState({ kind: 'failed', message: 'The device speaks another protocol.' });
        hang();
        return;
      }
      const message = parsed.data;
      if (message.type === 'hello') {
        setState({ kind: 'ready', hz: message.hz, simulated: message.simulated });
      } else if (message.type === 'samples') {
        setRecording((r) => ({ ...r, samples: [...r.samples, ...message.values] }));
      } else if (message.type === 'contact') {
        setRecording((r) => ({ ...r, contacts: [...r.contacts, { t: message.t, down: message.down }] }));
      } else {
        setState((s) => (s.kind === 'recording' ? { ...s, kind: 'ended' } : s));
      }
    };
    opened.onclose = () => {
      // Closed by the panel itself: nothing to say.
      if (socket.current === opened) setState({ kind: 'failed', message: 'The device is not there.' });
    };
  }, [hang, kind]);

  const start = (about: number) => {
    setRecording(NOTHING);
    setState((s) => ('hz' in s ? { ...s, kind: 'recording' } : s));
    socket.current?.send(JSON.stringify({ type: 'start', about }));
  };
  const stop = useCallback(() => {
    socket.current?.send(JSON.stringify({ type: 'stop' }));
    setState((s) => (s.kind === 'recording' ? { ...s, kind: 'ended' } : s));
  }, []);
  const close = () => {
    hang();
    setState({ kind: 'closed' });
  };
  return { state, recording, connect, start, stop, close };
}
