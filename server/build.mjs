// Bundles the server with the core into plain JavaScript; packages from the registry stay outside, as dependencies.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

const here = import.meta.dirname;
const outdir = join(here, 'dist');
rmSync(outdir, { recursive: true, force: true });

/** Everything that is not ours is required at run time. */
const registryPackages = {
  name: 'registry-packages',
  setup(builder) {
    builder.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || path.startsWith('@yonder/') ? undefined : { path, external: true },
    );
  },
};

await build({
  entryPoints: {
    main: join(here, 'src/main.ts'),
    migrate: join(here, 'src/db/migrateCommand.ts'),
    demo: join(here, 'src/demo/main.ts'),
    computeThread: join(here, 'src/compute/computeThread.ts'),
    printThread: join(here, 'src/features/printing/printThread.ts'),
  },
  outdir,
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [registryPackages],
});
