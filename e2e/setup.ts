import { serve } from './server.ts';

/** One Ledgerline with the demo for all journeys. */
export default (): Promise<() => Promise<void>> => serve({ port: 4390, smtpPort: 4391 });
