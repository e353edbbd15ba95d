import { array, boolean, type InferType, type ISchema, mixed, number, object, string } from 'yup';

const LONGEST_TENTH_UM = 1e11;

/** How many characters a name may have, by what it names. */
export const LONGEST_NAME = { thing: 20, track: 60, train: 60, layout: 80 } as const;

export const text = (most: number) =>
  string()
    .typeError('must be text')
    .max(most, `must be at most ${most} characters`)
    .required('is missing or empty; write it');
export const freeText = (most: number) =>
  string()
    .meta({ mayBeEmpty: true })
    .typeError('must be text')
    .max(most, `must be at most ${most} characters`)
    .defined('is missing; write "" for none');
export const id = () =>
  string()
    .typeError('must be a short id')
    .matches(/^[A-Za-z][A-Za-z0-9_-]{0,39}$/, 'must be a short id: a letter, then letters, digits, - or _')
    .required('is missing; every thing needs an id');
export const count = (least: number, most: number) =>
  number()
    .typeError('must be a number')
    .integer('must be a whole number')
    .min(least, `must be at least ${least}`)
    .max(most, `must be at most ${most}`)
    .required('is missing');
export const amount = (least: number, most: number) =>
  number()
    .typeError('must be a number')
    .min(least, `must be at least ${least}`)
    .max(most, `must be at most ${most}`)
    .required('is missing');
export const choice = <T extends string>(...values: T[]) =>
  mixed<T>()
    .oneOf(values, `must be one of: ${values.join(', ')}`)
    .required(`is missing; choose one of: ${values.join(', ')}`);
export const yesOrNo = () => boolean().typeError('must be true or false').required('is missing; write true or false');
export const list = <T>(of: ISchema<T>, most: number) =>
  array()
    .of(of)
    .max(most, `holds more than ${most} entries`)
    .typeError('must be a list')
    .required('is missing; write [] for none');
export const record = <S extends Parameters<typeof object>[0] & object>(shape: S) =>
  object(shape)
    // biome-ignore lint/suspicious/noTemplateCurlyInString: Yup fills this in itself
    .noUnknown('has a field I do not know: ${unknown}')
    .typeError('must be a set of named fields')
    .required('is missing');

export const lengthSchema = record({ tenthUm: count(0, LONGEST_TENTH_UM), typed: freeText(60) });
export const lineEndSchema = record({ line: id(), end: choice('start', 'end') });
export const placeSchema = record({ line: id(), at: lengthSchema });
export const lie = () => choice('straight', 'diverging');
export const facing = () => choice('up', 'down');
/** The ways of working that somebody has chosen for a thing, by id; what those are, the schools know. */
export const patterns = () => list(text(40), 20).optional().default(undefined);
/** What was set about a pattern that works at a thing, as a number: a time in ms. */
const settingSchema = record({ pattern: text(40), option: text(40), value: amount(0, 3_600_000) });
export type Setting = InferType<typeof settingSchema>;
export const settings = () => list(settingSchema, 40).optional().default(undefined);
export const certainty = () => choice('tentative', 'fixed');
/** The day on which it was cut, drilled or laid, as year-month-day. */
export const fixedOn = () =>
  string()
    .typeError('must be a day')
    .matches(/^\d{4}-\d\d-\d\d$/, 'must be a day, as 2026-11-27')
    .optional()
    .default(undefined);
