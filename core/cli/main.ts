import { yonder } from './yonder.ts';

const { code, stdout, stderr } = await yonder(process.argv.slice(2));
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = code;
