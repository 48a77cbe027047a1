/** What values of CSS may be, which is read from its tables when it is loaded. */
export { valueProblem } from '@upper-veneer/core';
