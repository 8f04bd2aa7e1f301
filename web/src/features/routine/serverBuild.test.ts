import { describe, expect, it } from 'vitest';
import { linesOf } from './serverBuild.ts';

function streamOf(...chunks: string[]): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    start(controller) {
      for (const chunk of chunks) controller.enqueue(encoder.encode(chunk));
      controller.close();
    },
  });
}
async function read(...chunks: string[]) {
  const kinds: string[] = [];
  for await (const line of linesOf(streamOf(...chunks))) kinds.push(line.kind);
  return kinds;
}

describe('a streamed build', () => {
  it('is read line by line, wherever the network cuts it', async () => {
    expect(await read('{"kind":"inte', 'rim"}\n{"kind":"interim"}\n{"ki', 'nd":"done"}\n')).toEqual([
      'interim',
      'interim',
      'done',
    ]);
  });
  it('leaves out a last line that was cut off', async () => {
    expect(await read('{"kind":"interim"}\n{"kind":"do')).toEqual(['interim']);
  });
});
