/** Keeps the last few things worked out, each under a key that changes whenever the thing would. A cache, never the truth. */
export class Recent<Value> {
  private readonly kept = new Map<string, Value>();
  private readonly most: number;

  constructor(most: number) {
    this.most = most;
  }

  get(key: string): Value | undefined {
    const value = this.kept.get(key);
    if (value === undefined) return undefined;
    this.kept.delete(key);
    this.kept.set(key, value);
    return value;
  }

  set(key: string, value: Value): void {
    this.kept.set(key, value);
    const oldest = this.kept.keys().next();
    if (this.kept.size > this.most && !oldest.done) this.kept.delete(oldest.value);
  }
}
