export { JobFeeds } from './JobFeeds';
export { readHref, readWords } from './readLink';
export { tapsOf } from './tapsOf';
export { VehicleFeeds } from './VehicleFeeds';
