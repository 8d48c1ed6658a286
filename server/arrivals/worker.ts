import { serveProcess } from '../processes/serve.ts';
import { openAsked, type OpenAnswer, type OpenAsk } from './opening.ts';

serveProcess<OpenAsk, OpenAnswer>(openAsked);
