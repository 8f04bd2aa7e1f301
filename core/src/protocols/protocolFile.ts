import type { TemplateFields } from '../contracts/index.ts';
import { templateFieldsSchema } from '../contracts/index.ts';
import { readDocument, schemaFaults } from '../formats/index.ts';
import type { CaseFault } from '../formats/index.ts';

/** The open format in which protocols are exchanged: `{ format, protocol: {...} }`. */
export const PROTOCOL_FILE_FORMAT = 'yonder-ridge-protocol/1';

/** A protocol as JSON text, readable by {@link readProtocolFile} anywhere; what the practice's own record adds is left out. */
export function writeProtocolFile(protocol: TemplateFields): string {
  const keys = Object.keys(templateFieldsSchema.shape);
  const fields = Object.entries(protocol).filter(([key]) => keys.includes(key));
  const document = { format: PROTOCOL_FILE_FORMAT, protocol: Object.fromEntries(fields) };
  return `${JSON.stringify(document, null, 2)}\n`;
}

/** The protocol of a file, or everything that keeps it from being one, each fault with its path. */
export function readProtocolFile(text: string): { protocol: TemplateFields } | { faults: CaseFault[] } {
  const found = readDocument(text, PROTOCOL_FILE_FORMAT);
  if ('fault' in found) return { faults: [found.fault] };
  const read = templateFieldsSchema.safeParse(found.document['protocol']);
  if (read.success) return { protocol: read.data };
  const faults = schemaFaults(read.error.issues);
  return { faults: faults.map(({ path, message }) => ({ path: path.replace('$', '$.protocol'), message })) };
}
