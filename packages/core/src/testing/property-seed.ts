/** Property tests draw the same cases every time, so that a red test is the change's doing. INSIDIA_SEED draws others. */
import * as fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env.INSIDIA_SEED ?? 20261124) });
