// Builds everything that `npm start` needs: the web client and the bundled server.
import { buildServer, buildWeb } from './lib/build.mjs';
import { checkNode } from './lib/setup.mjs';

checkNode();
await buildWeb();
await buildServer();
console.log('Built: web/dist and server/dist. Next: npm run migrate, then npm start.');
