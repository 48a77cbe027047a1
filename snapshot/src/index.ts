export { takeSnapshot, type Snapshot } from './take-snapshot.js';
export { pageFileBookmark, pageFileScript } from './page-file.js';
