/** A database cluster of its own; `end` takes it away with everything in it. */
export function throwawayCluster(
  name: string,
): Promise<{ url: string; logFile: string; end: () => Promise<void> }>;
/** The built product on a throw-away cluster with the demo data: the environment of its processes, and what ends it. */
export function throwawayProduct(name: string): Promise<{
  environment: Record<string, string>;
  url: string;
  logFile: string;
  end: () => Promise<void>;
}>;
