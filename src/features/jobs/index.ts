export { FollowUpList } from './FollowUpList';
export { HandOverSheet } from './HandOverSheet';
export { IsolationSteps } from './IsolationSteps';
export { JobFrame } from './JobFrame';
export { JobPage } from './JobPage';
export { type JobData, JobProvider, useJob } from './JobProvider';
export { NewJobForm } from './NewJobForm';
export { Photos } from './Photos';
export { StageMark } from './StageMark';
