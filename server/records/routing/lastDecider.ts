/** Who decided last about a record, as long as nobody did anything since: then they may take it back. */
export const lastDecider = (row: {
  revision: number;
  decided_by: string | null;
  decided_in: number | null;
}): string | null => (row.decided_in === row.revision ? row.decided_by : null);
