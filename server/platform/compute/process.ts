import { serve } from '../helpers/serve.ts';
import { computeHere } from './work.ts';

/** A process of its own for computations that would hold up the server. */
serve(computeHere, String);
