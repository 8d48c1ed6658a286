import { useMatch } from 'react-router';

/** The id of the bill at the desk; null anywhere else. */
export function useBillAtDesk(): string | null {
  const id = useMatch('/bills/:id')?.params.id;
  return id && id !== 'repeating' ? id : null;
}
