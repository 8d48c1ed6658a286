import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import formatsModule from 'ajv-formats';
import type { Static, TSchema } from '@sinclair/typebox';
import { Refusal } from './problems.ts';

const ajv = new Ajv({ allErrors: true, coerceTypes: false, removeAdditional: false });
const loose = new Ajv({ allErrors: true, coerceTypes: true });
const addFormats = formatsModule.default;
addFormats(ajv, ['uuid', 'email']);
addFormats(loose, ['uuid', 'email']);
const compiled = new Map<TSchema, ValidateFunction>();

function sentence(error: ErrorObject): string {
  if (error.keyword === 'required') return `${String(error.params['missingProperty'])} is missing.`;
  if (error.keyword === 'minLength') return `Needs at least ${String(error.params['limit'])} characters.`;
  if (error.keyword === 'maxLength') return `Can have ${String(error.params['limit'])} characters at most.`;
  if (error.keyword === 'format') return error.params['format'] === 'email' ? 'This is not a mail address.' : 'This is not valid.';
  if (error.keyword === 'pattern') return 'This does not have the right form.';
  return `This ${error.message ?? 'is not valid'}.`;
}

/** The data as the schema has it, or a refusal that names each field. `text` lets query strings stand for numbers. */
export function valid<T extends TSchema>(schema: T, data: unknown, text = false): Static<T> {
  let validate = compiled.get(schema);
  if (!validate) {
    validate = (text ? loose : ajv).compile(schema);
    compiled.set(schema, validate);
  }
  if (validate(data)) return data as Static<T>;
  const errors = (validate.errors ?? [])
    .filter((e) => e.keyword !== 'anyOf')
    .map((e) => ({ path: e.instancePath.slice(1).replace(/\//g, '.'), sentence: sentence(e) }));
  throw new Refusal(
    400,
    errors[0]
      ? `Something in the form is not right: ${errors[0].path ? `${errors[0].path}: ` : ''}${errors[0].sentence}`
      : 'Something in the form is not right.',
    errors,
  );
}
