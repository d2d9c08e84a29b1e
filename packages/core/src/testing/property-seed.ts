/**
 * Property tests draw the same cases every time, so that a red test is the change's doing. INSIDIA_SEED draws others. A
 * case that fails is told as it was drawn; INSIDIA_SHRINK=1 looks for a smaller one, which may take minutes.
 */
import * as fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env.INSIDIA_SEED ?? 20261124), endOnFailure: !process.env.INSIDIA_SHRINK });
