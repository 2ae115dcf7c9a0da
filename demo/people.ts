import type { Role } from '../core/workflow/lifecycle.types.ts';

/** The people of Saltmarsh Commons. Nobody here is real. */
export interface PersonSeed {
  id: string;
  name: string;
  mail: string;
  entity: string;
  currency: string;
  kind?: 'contractor';
  roles: Role[];
}

export const people: PersonSeed[] = [
  {
    id: 'P01',
    name: 'Maeve Tarrant',
    mail: 'maeve.tarrant',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'reviewer'],
  },
  {
    id: 'P02',
    name: 'Inês Quadros',
    mail: 'ines.quadros',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'reviewer'],
  },
  {
    id: 'P03',
    name: 'Odd Fjellheim',
    mail: 'odd.fjellheim',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'approver', 'controller'],
  },
  {
    id: 'P04',
    name: 'Noor Al-Dosari',
    mail: 'noor.aldosari',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'reviewer', 'controller'],
  },
  { id: 'P05', name: 'Tomás Brandão', mail: 'tomas.brandao', entity: 'IE', currency: 'EUR', roles: ['claimant'] },
  {
    id: 'P06',
    name: 'Aoi Kuramochi',
    mail: 'aoi.kuramochi',
    entity: 'JP',
    currency: 'JPY',
    roles: ['claimant', 'approver'],
  },
  {
    id: 'P07',
    name: 'Ren Isshiki',
    mail: 'ren.isshiki',
    entity: 'JP',
    currency: 'JPY',
    roles: ['claimant', 'approver'],
  },
  { id: 'P08', name: 'Wanjirũ Mbaya', mail: 'wanjiru.mbaya', entity: 'IE', currency: 'EUR', roles: ['claimant'] },
  {
    id: 'P09',
    name: 'Siobhán O’Dowd',
    mail: 'siobhan.odowd',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'approver'],
  },
  {
    id: 'P10',
    name: 'Pavel Hruška',
    mail: 'pavel.hruska',
    entity: 'IE',
    currency: 'EUR',
    kind: 'contractor',
    roles: ['claimant'],
  },
  {
    id: 'P11',
    name: 'Leilani Kahue',
    mail: 'leilani.kahue',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'administrator'],
  },
  {
    id: 'P12',
    name: 'Ottoline Featherstonehaugh-Marchbanks',
    mail: 'ottoline.marchbanks',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'auditor'],
  },
  {
    id: 'P13',
    name: 'Hedda Vestergaard',
    mail: 'hedda.vestergaard',
    entity: 'IE',
    currency: 'EUR',
    roles: ['claimant', 'preparer'],
  },
];

/** Who usually approves for whom. */
export const usualApprovers: Record<string, string> = {
  P01: 'P03',
  P02: 'P09',
  P03: 'P09',
  P04: 'P09',
  P05: 'P09',
  P06: 'P07',
  P07: 'P06',
  P08: 'P09',
  P09: 'P03',
  P10: 'P09',
  P11: 'P03',
  P12: 'P03',
  P13: 'P03',
};
