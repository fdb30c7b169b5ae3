import fc from 'fast-check';

/**
 * The properties of a run of all tests are tried on the same generated cases each time, so that two runs of the same code say the
 * same. `PROPERTY_SEED=random` looks for new ones; the seed of a failure is printed and can be given again.
 */
const { PROPERTY_SEED: seed = '20261128' } = process.env;
if (seed !== 'random') fc.configureGlobal({ seed: Number(seed) });
