/** SQL for what a receipt shows, as "amount currency": what its owner confirmed, else what was read. */
export const SHOWS = (
  receipt: string,
  reading: string,
) => `case when ${receipt}.amount is not null then ${receipt}.amount::text || ' ' || ${receipt}.currency
  else replace(${reading}.reading->'amount'->>'value', '.', '') || ' ' || (${reading}.reading->'currency'->>'value') end`;
