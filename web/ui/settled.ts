import { useEffect, useState } from 'react';

/** A value once it has stayed as it is for a moment, so that typing asks once. */
export function useSettled(value: string): string {
  const [settled, settle] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => settle(value), 60);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}
