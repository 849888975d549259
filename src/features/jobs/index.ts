export { BringJob } from './BringJob';
export { CautionAsk, CautionsThatWait, useUnread } from './CautionAsk';
export { FeedAddress } from './FeedAddress';
export { FollowUpList } from './FollowUpList';
export { HazardList } from './HazardList';
export { HelperPrompt, HelperSwitch, useHelper } from './Helper';
export { InStock } from './InStock';
export { IsolationSteps } from './IsolationSteps';
export { JobFrame } from './JobFrame';
export { JobLines } from './JobLines';
export { JobProvider, useDescribed, useDiagnosis, useJob } from './JobProvider';
export { NewJobForm } from './NewJobForm';
export { noteOf } from './noteOf';
export { Photos } from './Photos';
export { SeenCell } from './SeenCell';

export { SheetBody, SheetFoot, SheetHead } from './sheet';
export { useHelperPhone } from './useHelperPhone';
export { loadHandOverSheet, loadJobPage } from './views';
