import { any } from './vocabulary.ts';

/** What a guest adds of their own, often by hand. */
export const TIP = any([
  'tips?',
  'gratuity',
  'gratuities',
  'trinkgeld',
  'pourboire',
  'propina',
  'gorjeta',
  'gratificacao',
  'mancia',
  'fooi',
  'drikkepenge',
  'drikkepeng(?:er)?',
  'driks',
  'drikks',
  'dricks',
  'juomaraha',
  'tippi',
  'napiwek',
  'spropitne',
  'borravalo',
]);
/** Says that nothing is added: it is in the price, or left to the guest without a place for it. */
export const INCLUDED = any([
  'not included',
  'incl[a-z.]*',
  'inkl[a-z.]*',
  'compris[e]?',
  'comprise',
  'incluid[ao]s?',
  'inclus[aoe]?s?',
  'inbegrepen',
  'enthalten',
  'welcome',
  'appreciated',
  'at your discretion',
]);
