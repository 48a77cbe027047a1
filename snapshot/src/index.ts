export { openTopLayer } from './open-top-layer.js';
export { takeSnapshot, type Snapshot, type SnapshotOptions } from './take-snapshot.js';
export { pageFileBookmark, pageFileScript } from './page-file.js';
