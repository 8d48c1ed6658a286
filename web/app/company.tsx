import { createContext, useContext } from 'react';
import { may, type Company, type Me, type Permission } from '@ledgerline/contract';

interface Place {
  me: Me;
  company: Company;
  choose(id: string): void;
}
export const PlaceContext = createContext<Place | null>(null);

/** Who works here and in which company. */
export function usePlace(): Place & { can(permission: Permission): boolean } {
  const place = useContext(PlaceContext);
  if (!place) throw new Error('No company is chosen');
  return { ...place, can: (permission) => may(place.company.roles, permission) };
}
