// The seed of the property tests: the same in every run, so that a test gives the same answer each time; another one in
// `npm run test:soak`, which sets it.
export const FIXED_SEED = 20_261_125;

export const seed = () => Number(process.env.PROPERTY_SEED ?? FIXED_SEED);
