import { Bill, Nothing } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { addNote, sawNotes } from './service.ts';

export function noteRoutes(api: Api): void {
  api.command({ method: 'post', path: '/bills/:id/notes', summary: 'Write a note on a bill, to people', answer: Bill }, addNote);
  api.command({ method: 'post', path: '/bills/:id/notes/seen', summary: 'Have seen what names one', answer: Nothing }, sawNotes);
}
