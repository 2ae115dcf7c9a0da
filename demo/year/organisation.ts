import type { Limit } from '../../core/documents/rules.schema.ts';
import { entities as first } from '../organisation.ts';
import type { PersonSeed } from '../people.ts';

/** What the organisation has besides: two more entities with their taxes and limits, and the people who work there. */
const accounts = first[0]!.accounts;
const entity = (id: string, name: string, currency: string, time_zone: string) => ({
  ...{ id, name, currency, time_zone, rate_date: 'line', tax_registrations: [id], recovery: '100' },
  ...{ own_rate_tolerance: '3', tax_number_required: true, accounts, cards: {} },
});
export const entities = [
  entity('NO', 'Saltmarsh Commons Norge', 'NOK', 'Europe/Oslo'),
  entity('BH', 'Saltmarsh Commons Bahrain', 'BHD', 'Asia/Bahrain'),
];
export const planTolerances: Record<string, object> = {
  NO: { percent: '10', amount: '300.00' },
  BH: { percent: '10', amount: '10.000' },
};

export const accountNames: [string, string][] = [
  ['1419', 'Input tax Norway'],
  ['1421', 'Input tax Bahrain'],
];
export const taxCodes = [
  { code: 'NO-25', name: 'Norwegian VAT, standard', country: 'NO', rate: '25', account: '1419' },
  { code: 'NO-15', name: 'Norwegian VAT, food', country: 'NO', rate: '15', account: '1419' },
  { code: 'BH-10', name: 'Bahraini VAT', country: 'BH', rate: '10', account: '1421' },
];
export const limits: Limit[] = [
  {
    ...{ id: 'lodging-no', kind: 'cap', per: 'night', severity: 'ask', categories: ['lodging'] },
    ...{ countries: ['NO'], cap: { amount: '1900.00', currency: 'NOK' } },
  } as Limit,
  {
    ...{ id: 'lodging-bh', kind: 'cap', per: 'night', severity: 'ask', categories: ['lodging'] },
    ...{ countries: ['BH'], cap: { amount: '55.000', currency: 'BHD' } },
  } as Limit,
];

/** Name, mail, entity; P14 and on, in this order. */
const NAMES: [string, string, string][] = [
  ['Aoife Ní Bhriain', 'aoife.nibhriain', 'IE'],
  ['Cormac Delahunty', 'cormac.delahunty', 'IE'],
  ['Ewa Zielińska', 'ewa.zielinska', 'IE'],
  ['Fiachra Muldowney', 'fiachra.muldowney', 'IE'],
  ['Gráinne Hession', 'grainne.hession', 'IE'],
  ['Ioana Păcuraru', 'ioana.pacuraru', 'IE'],
  ['Jarlath Quilty', 'jarlath.quilty', 'IE'],
  ['Lorcán Feehily', 'lorcan.feehily', 'IE'],
  ['Muireann Tully', 'muireann.tully', 'IE'],
  ['Nadezhda Ilieva', 'nadezhda.ilieva', 'IE'],
  ['Pádraig Scanlan', 'padraig.scanlan', 'IE'],
  ['Róisín Kettle', 'roisin.kettle', 'IE'],
  ['Ågot Sundheim', 'agot.sundheim', 'NO'],
  ['Bjarte Lyngstad', 'bjarte.lyngstad', 'NO'],
  ['Eirin Vollan', 'eirin.vollan', 'NO'],
  ['Halvard Øksnes', 'halvard.oksnes', 'NO'],
  ['Ingvild Røssevik', 'ingvild.rossevik', 'NO'],
  ['Tormod Fjærli', 'tormod.fjaerli', 'NO'],
  ['Chiyo Matsuzawa', 'chiyo.matsuzawa', 'JP'],
  ['Haruto Ebina', 'haruto.ebina', 'JP'],
  ['Kaede Tominaga', 'kaede.tominaga', 'JP'],
  ['Sota Yanagihara', 'sota.yanagihara', 'JP'],
  ['Fatima Al-Sayyad', 'fatima.alsayyad', 'BH'],
  ['Hussain Marhoon', 'hussain.marhoon', 'BH'],
  ['Layla Al-Asfoor', 'layla.alasfoor', 'BH'],
  ['Yusuf Darwish-Mannai', 'yusuf.darwish', 'BH'],
  ['Zainab Radhi', 'zainab.radhi', 'BH'],
];
const CURRENCY: Record<string, string> = { IE: 'EUR', NO: 'NOK', JP: 'JPY', BH: 'BHD' };
/** Who approves in an entity; the first of the new ones in Norway and in Bahrain does it there. */
export const APPROVERS: Record<string, string> = { IE: 'P09', NO: 'P26', JP: 'P06', BH: 'P36' };

export const people: PersonSeed[] = NAMES.map(([name, mail, of], i) => {
  const id = `P${14 + i}`;
  const approves = Object.values(APPROVERS).includes(id);
  return {
    id,
    name,
    mail,
    entity: of,
    currency: CURRENCY[of]!,
    roles: approves ? ['claimant', 'approver'] : ['claimant'],
  };
});
