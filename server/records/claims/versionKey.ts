/** Which version of which claim. */
export interface VersionKey {
  claim_id: bigint;
  version: number;
}
