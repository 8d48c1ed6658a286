/** What a figure beside the lines is. */
export const totalTags = ['none', 'net', 'tax', 'gross', 'charge'] as const;
export type TotalTag = (typeof totalTags)[number];
