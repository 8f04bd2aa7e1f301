export interface RunningServer {
  readonly port: number;
  readonly pid: number;
  readonly exited: Promise<number | null>;
  readonly stop: () => Promise<void>;
  readonly kill: () => void;
}
export function startServer(environment: Record<string, string>): Promise<RunningServer>;
export function runOnce(entry: string, environment: Record<string, string>): Promise<void>;
