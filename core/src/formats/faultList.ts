/** A fault of a case: where (JSONPath), what is wrong and what would be right. */
export interface CaseFault {
  readonly path: string;
  readonly message: string;
}

/** Where in a document a fault lies: keys and places from its root. */
export type Path = readonly (string | number)[];

/** `$.screenings[0].results[1]` from its parts. */
export function jsonPath(parts: readonly PropertyKey[]): string {
  return parts.reduce<string>(
    (path, part) => path + (typeof part === 'number' ? `[${part}]` : `.${String(part)}`),
    '$',
  );
}

/** Collects faults with their paths. */
export class FaultList {
  readonly faults: CaseFault[] = [];
  add(path: Path, message: string): void {
    this.faults.push({ path: jsonPath(path), message });
  }
  known(list: ReadonlyMap<string, unknown>, what: string, id: string, path: Path): boolean {
    if (list.has(id)) return true;
    this.add(path, `unknown ${what} "${id}"; use an id of the reference`);
    return false;
  }
}
