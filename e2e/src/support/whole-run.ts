/** Whether everything is asked for, as `npm run prove` does, instead of a seeded sample. */
export const isWhole = process.env['PROVE_DRAWS'] !== undefined;
