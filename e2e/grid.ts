import type { Page } from '@playwright/test';

/** A cell of the desk's grid, by its row from 1 and its field. */
export const cell = (page: Page, row: number, field: string) => page.locator(`[data-row="${row - 1}"] [data-field$=".${field}"]`);
