import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { HandoutInput } from './input.ts';

/** Makes PDFs one after the other on a thread of its own: a booklet of ten routines holds up no other request. */
export class Printer {
  private readonly pool: Piscina;
  private readonly folder = mkdtempSync(join(tmpdir(), 'yonder-fonts-'));

  constructor() {
    // From sources the thread registers the TypeScript loader first; built, it is a bundle beside this one.
    const built = import.meta.url.endsWith('.js');
    this.pool = new Piscina({
      filename: fileURLToPath(
        new URL(built ? './printThread.js' : './startPrintThread.mjs', import.meta.url),
      ),
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
      workerData: { folder: this.folder },
    });
    process.on('exit', this.tidy);
  }

  private readonly tidy = () => rmSync(this.folder, { recursive: true, force: true });

  /** The A4 handout of a version, with a page to log sessions by pen. */
  handout(input: HandoutInput): Promise<Buffer> {
    return this.run('createHandout', input);
  }

  /** The handouts of all occasions as one booklet. */
  booklet(inputs: readonly [HandoutInput, ...HandoutInput[]]): Promise<Buffer> {
    return this.run('createBooklet', inputs);
  }

  /** A card for the pocket, A6. */
  card(input: HandoutInput): Promise<Buffer> {
    return this.run('createCard', input);
  }

  private async run(name: string, input: unknown): Promise<Buffer> {
    // A buffer comes over as plain bytes.
    return Buffer.from((await this.pool.run(input, { name })) as Uint8Array);
  }

  async close(): Promise<void> {
    await this.pool.destroy();
    process.off('exit', this.tidy);
    this.tidy();
  }
}
