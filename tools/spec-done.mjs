/** Written by a set each time that one of its specs has ended, for who tells how far it is. */
export const SPEC_DONE = '.. spec done\n';
