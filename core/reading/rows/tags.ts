/** What a printed row is: a line's row with its amount, another row of a line, or neither. */
export const rowTags = ['none', 'line', 'part'] as const;
export type RowTag = (typeof rowTags)[number];
/** What a figure or a word of a line's rows is. */
export const itemTags = ['other', 'amount', 'price', 'quantity', 'rate', 'discount', 'code', 'description'] as const;
export type ItemTag = (typeof itemTags)[number];
