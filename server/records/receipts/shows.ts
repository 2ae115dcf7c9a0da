/** SQL for the pages of a receipt: their size, and the quarter turns its owner gave them, or that they were read with. */
export const PAGES = (receipt: string, reading: string) => `(select jsonb_agg(jsonb_build_object(
    'width', p.width, 'height', p.height, 'turns', coalesce(${receipt}.turned[p.page], ${reading}.turns[p.page], 0)) order by p.page)
  from receipt_pages p where p.sha256 = ${receipt}.sha256)`;

/** SQL for what a receipt shows, as "amount currency": what its owner confirmed, else what was read. */
export const SHOWS = (
  receipt: string,
  reading: string,
) => `case when ${receipt}.amount is not null then ${receipt}.amount::text || ' ' || ${receipt}.currency
  else replace(${reading}.reading->'amount'->>'value', '.', '') || ' ' || (${reading}.reading->'currency'->>'value') end`;

/** SQL for the day a receipt shows, ISO 8601, confirmed or read. */
export const DAY_SHOWN = (receipt: string, reading: string) =>
  `coalesce(${receipt}.date::text, ${reading}.reading->'date'->>'value')`;

/** SQL for the merchant a receipt shows, confirmed or read. */
export const MERCHANT_SHOWN = (receipt: string, reading: string) =>
  `coalesce(${receipt}.merchant, ${reading}.reading->'merchant'->>'value')`;
