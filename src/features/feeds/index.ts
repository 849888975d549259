export { JobFeeds } from './JobFeeds';
export { tapsOf } from './tapsOf';
export { VehicleFeeds } from './VehicleFeeds';
