/** How a finding stands. */
export type Standing = 'holds' | 'look' | 'fails';
