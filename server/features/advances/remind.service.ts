import { reminderDay, type ReminderDays } from '../../../core/advances/reminders.ts';
import { isOverdue } from '../../../core/advances/judgeRequest.ts';
import { fromMinor } from '../../../core/numbers/amount.ts';
import { selectSettings } from '../../platform/acts/settings.queries.ts';
import type { Context } from '../../platform/context.ts';
import type { Db } from '../../platform/db/connect.ts';
import { inTransaction } from '../../platform/db/transaction.ts';
import { today } from '../../platform/ports/clock.ts';
import { actOnAdvance } from '../../records/advances/advanceStore.ts';
import { selectDueAdvances, type NamedAdvance } from './advances.queries.ts';

const KEYS = ['advance-reminder-days-before', 'advance-reminder-every-days'] as const;
const USUAL: ReminderDays = { before: 7, every: 7 };

async function reminderDays(db: Db): Promise<ReminderDays> {
  const { [KEYS[0]]: before = USUAL.before, [KEYS[1]]: every = USUAL.every } = await selectSettings(db, KEYS);
  return { before: Number(before), every: Number(every) };
}

/** Reminds of every advance that is open whose reminder stands and was not sent: before its day, on it, and every so often after. */
export async function remindAdvances(context: Context): Promise<void> {
  const days = await reminderDays(context.db);
  for (const advance of await selectDueAdvances(context.db)) {
    const on = today(context.clock, advance.timeZone);
    const day = reminderDay(advance.due_by!, on, days);
    if (day !== null && day !== advance.reminded_for) await remind(context, advance, day, on);
  }
}

/** The row is locked by the act and looked at again: another process may have reminded meanwhile. */
const remind = (context: Context, { id, open, currency }: NamedAdvance, day: string, on: string): Promise<void> =>
  inTransaction(context, (trx) =>
    actOnAdvance(
      context,
      trx,
      { act: 'remind', advance: { number: id, revision: null }, actor: null },
      async ({ row }) => {
        if (row.state !== 'paid out' || row.reminded_for === day) return { result: undefined, unchanged: true };
        const overdue = isOverdue({ open: open!, dueBy: row.due_by }, on);
        const facts = { dueBy: row.due_by, open: fromMinor(open!, currency), overdue };
        return { result: undefined, columns: { reminded_for: day }, facts };
      },
    ),
  );
