export interface Cluster {
  readonly url: string;
  readonly folder: string;
  readonly stop: () => Promise<void>;
}
export function startCluster(options: {
  folder: string;
  secretFile: string;
  durable?: boolean;
}): Promise<Cluster>;
export function removeCluster(folder: string): Promise<void>;
export function freePort(preferred?: number): Promise<number>;
