import type { RouteLevel } from '../core/routing/route.schema.ts';

/** Who is answerable for contractors. */
export const sponsors: Record<string, string> = { P10: 'P03' };

const EUR = (amount: string) => ({ amount, currency: 'EUR' });
const ALL: RouteLevel['of'] = ['claim', 'plan', 'advance'];

/** The levels on which the people of Saltmarsh Commons decide: five by amount, owners and sponsors beside them. */
export const routes: ({ id: string } & RouteLevel)[] = [
  { id: 'usual', name: 'Usual approver', of: ALL, place: 1, who: { is: 'approver', steps: 1 } },
  { id: 'sponsor', name: 'Sponsor of the contractor', of: ['claim', 'plan'], place: 1, who: { is: 'sponsor' } },
  {
    ...{ id: 'owners', name: 'Owners of projects and grants', of: ['claim', 'plan'], place: 2 },
    ...{ above: EUR('1500.00'), who: { is: 'owner', dimensions: ['project', 'grant'] } },
  },
  {
    ...{ id: 'second', name: 'Second in line', of: ALL, place: 2 },
    ...{ above: EUR('2000.00'), who: { is: 'approver', steps: 2 } },
  },
  {
    ...{ id: 'third', name: 'Third in line', of: ALL, place: 3 },
    ...{ above: EUR('5000.00'), who: { is: 'approver', steps: 3 } },
  },
  {
    ...{ id: 'controllers', name: 'A controller', of: ALL, place: 4 },
    ...{ above: EUR('15000.00'), who: { is: 'role', role: 'controller' } },
  },
  {
    ...{ id: 'administration', name: 'Administration', of: ALL, place: 5 },
    ...{ above: EUR('40000.00'), who: { is: 'person', person: 'P11' } },
  },
];
