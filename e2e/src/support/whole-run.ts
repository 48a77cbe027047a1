/** Whether everything is asked for, as `npm run prove` does, instead of a seeded sample. */
export const isWhole = process.env['PROVE_DRAWS'] !== undefined;

/** Which turn of the sample it is, from one commit to the next; 0 where it is not told. */
export const turn = Number(process.env['SPEC_TURN'] ?? 0);
