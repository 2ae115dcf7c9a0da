import type { Assessment } from '../../../core/documents/assessment.schema.ts';
import type { Case, Claim } from '../../../core/documents/case.schema.ts';
import type { OwnBook } from '../../../core/documents/splitBook.ts';
import type { Review } from '../../../core/evidence/comparisons/reviewCase.ts';
import { tieText } from '../../../core/evidence/comparisons/tieText.ts';
import type { Evidence, Tie } from '../../../core/evidence/comparisons/tie.types.ts';
import { sha256 } from '../../platform/history/sha256.ts';
import type { BudgetRow } from '../book/book.queries.ts';

/** A claim's version with everything computed of it now, and what it was computed from. */
export interface AssessedClaim extends Review {
  document: Case;
  own: OwnBook;
  bookHash: string;
  evidence: Evidence;
  budgets: BudgetRow[];
}

/** What is assessed: the claim as a document with its evidence. */
export interface Subject {
  claim: Claim;
  evidence: Evidence;
}

/** The stored assessment of a version as it can be worked on: the document whole again. */
export interface KeptClaim extends Subject {
  document: Case;
  assessment: Assessment;
  ties: Tie[];
}

/** The fingerprint of a comparison, by which a mark says what it is about. */
export const fingerprintOf = (tie: Tie): string => sha256(tieText(tie));
