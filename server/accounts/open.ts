/** Whether lines of a bill of this day may name it. */
export const openOn = (of: { active: boolean; validFrom: string | null; validTo: string | null }, day: string): boolean =>
  of.active && (of.validFrom === null || of.validFrom <= day) && (of.validTo === null || day <= of.validTo);
