// The web program: node src/app/front/begin.mjs [--port 3000] [--host 127.0.0.1].
// TypeScript is read for the front alone: between the framework's built files and the disk a reader would cost time and memory.
import { register } from 'tsx/esm/api';

// Read by the framework before anything else of it runs.
process.env.NODE_ENV ??= 'production';

const unregister = register();
const { serve } = await import('./serve.ts');
await unregister();
process.setSourceMapsEnabled(false);
await serve();
