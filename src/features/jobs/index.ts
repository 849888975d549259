export { BringJob } from './BringJob';
export { FeedAddress } from './FeedAddress';
export { FollowUpList } from './FollowUpList';
export { HazardList } from './HazardList';
export { JobLines } from './JobLines';
export { NewJobForm } from './NewJobForm';

export { SheetBody, SheetFoot, SheetHead } from './sheet';
export { loadHandOverSheet, loadJobPage } from './views';
