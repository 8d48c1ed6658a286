import { useMatch } from 'react-router';

/** The id of the bill at the desk; null anywhere else. */
export function useBillAtDesk(): string | null {
  const id = useMatch('/bills/:id')?.params.id;
  // Beside the bills stand pages of their own.
  return id && /^[0-9a-f-]{36}$/.test(id) ? id : null;
}
