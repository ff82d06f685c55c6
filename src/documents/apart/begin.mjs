// A thread does not take over how its program reads TypeScript, so it says so itself.
import { register } from 'tsx/esm/api';

register();
await import('./thread.ts');
