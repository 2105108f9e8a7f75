import { config } from 'zod/v4/core';

// Imported first by every file that makes schemas: without it zod probes `new Function`, which the security policy
// refuses.
config({ jitless: true });
