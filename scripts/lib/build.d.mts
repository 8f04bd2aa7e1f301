export function buildWeb(): Promise<string>;
