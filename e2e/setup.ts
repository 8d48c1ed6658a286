import { portOf } from './parts.ts';
import { serve } from './server.ts';

/** One Ledgerline with the demo for all journeys. */
export default (): Promise<() => Promise<void>> => serve({ port: portOf('web'), smtpPort: portOf('mail') });
