/** Laws are tried on the same random cases every time, so that a red run can be run again. `LAWS_SEED=7 npm run test:unit` tries others. */
import fc from 'fast-check';

fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(process.env.LAWS_SEED ?? 1) });
