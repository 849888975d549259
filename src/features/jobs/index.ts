export { HandOverSheet } from './HandOverSheet';
export { JobFrame } from './JobFrame';
export { JobPage } from './JobPage';
export { type JobData, JobProvider, useJob } from './JobProvider';
export { NewJobForm } from './NewJobForm';
export { Photos } from './Photos';
export { StageMark } from './StageMark';
export type { JobPhoto, JobState, LogEntry } from './state';
export { conditionName, eventWords, functionName, STATE_WORDS, testWords, valueWords } from './words';
