import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import formatsModule from 'ajv-formats';
import type { Static, TSchema } from '@sinclair/typebox';
import { closed } from '@ledgerline/contract';
import { keepable } from '../db/text.ts';
import { Refusal } from './problems.ts';

const ajv = new Ajv({ allErrors: true, coerceTypes: false, removeAdditional: false });
const loose = new Ajv({ allErrors: true, coerceTypes: true });
const addFormats = formatsModule.default;
addFormats(ajv, ['uuid', 'email', 'date']);
addFormats(loose, ['uuid', 'email', 'date']);
const compiled = new Map<TSchema, ValidateFunction>();

const wrongFormat: Record<string, string> = { email: 'This is not a mail address.', date: 'This is not a date of the calendar.' };

function sentence(error: ErrorObject): string {
  if (error.keyword === 'required') return `${String(error.params['missingProperty'])} is missing.`;
  if (error.keyword === 'minLength') return `Needs at least ${String(error.params['limit'])} characters.`;
  if (error.keyword === 'maxLength') return `Can have ${String(error.params['limit'])} characters at most.`;
  if (error.keyword === 'format') return wrongFormat[String(error.params['format'])] ?? 'This is not valid.';
  if (error.keyword === 'additionalProperties') return `${String(error.params['additionalProperty'])} cannot be set here.`;
  if (error.keyword === 'pattern') return 'This does not have the right form.';
  return `This ${error.message ?? 'is not valid'}.`;
}

/**
 * The data as the schema has it, or a refusal that names each field. `text` lets query strings stand for numbers; `at` is where the
 * data stands in what was sent.
 */
export function valid<T extends TSchema>(schema: T, data: unknown, text = false, at = ''): Static<T> {
  let validate = compiled.get(schema);
  if (!validate) {
    validate = (text ? loose : ajv).compile(schema);
    compiled.set(schema, validate);
  }
  if (validate(data)) {
    const where = unkept(data, '');
    if (where === null) return data as Static<T>;
    const told = { path: at + where.slice(at ? 0 : 1), sentence: 'This holds a sign that cannot be kept.' };
    throw new Refusal(400, `Something in the form is not right: ${told.sentence}`, [told]);
  }
  const errors = (validate.errors ?? [])
    .filter((e, _, all) => e.keyword !== 'anyOf' || all.length === 1)
    .map((e) => ({ path: at + e.instancePath.slice(at ? 0 : 1).replace(/\//g, '.'), sentence: sentence(e) }));
  throw new Refusal(
    400,
    errors[0]
      ? `Something in the form is not right: ${errors[0].path ? `${errors[0].path}: ` : ''}${errors[0].sentence}`
      : 'Something in the form is not right.',
    errors,
  );
}

/** Where a text is that no database keeps (a zero byte, half a character), or a number without end; null where all is well. */
function unkept(data: unknown, path: string): string | null {
  if (typeof data === 'string') return keepable(data) ? null : path;
  if (typeof data === 'number') return Number.isFinite(data) ? null : path;
  if (data === null || typeof data !== 'object') return null;
  for (const [name, value] of Object.entries(data)) {
    const found = keepable(name) ? unkept(value, `${path}.${name}`) : path;
    if (found !== null) return found;
  }
  return null;
}
/** Throws where an answer is not what its route promises: for tests. */
export function fits(schema: TSchema, data: unknown, what: string): void {
  let validate = answers.get(schema);
  if (!validate) answers.set(schema, (validate = ajv.compile(closed(schema))));
  if (!validate(data)) throw new Error(`${what} does not answer as it says: ${JSON.stringify(validate.errors?.slice(0, 3))}`);
}
const answers = new Map<TSchema, ValidateFunction>();
