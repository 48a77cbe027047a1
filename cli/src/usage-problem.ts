/** What was asked for cannot be done, in words for the one who asked. */
export class UsageProblem extends Error {}
