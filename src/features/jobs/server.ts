/** Reading and writing jobs in the database. Every call names the actor, whose shop bounds what is seen. */

export { summarise } from '#core/log';
export {
  type AppendResult,
  appendEvents,
  appendIn,
  type StoredReceipt,
} from './appendEvents';
export { changesInForce, photosOf } from './changesInForce';
export {
  allFollowUps,
  calendarOfFollowUps,
  dueFollowUps,
  FOLLOW_UP_PAGE,
  type FollowUp,
  feedAddress,
  renewFeed,
  shopOfFeed,
  vehicleFollowUps,
} from './followUps';
export { changeGuests, type GuestLink, guestOf, guestsOf } from './guests';
export { type Hazard, openHazards } from './hazards';
export { type ImportedJob, importJob } from './importJob';
export { type JobPdf, jobFileName, jobPdf, jobSheet } from './jobPdf';
export { learnOnJob } from './learnOnJob';
export { countJobs, JOB_PAGE, type JobList, type JobRow, listJobs } from './listJobs';
export { type BegunJob, beginJob, type JobInput, openJob, openJobIn } from './openJob';
export { PatternPicture } from './PatternPicture';
export { keepPhoto, readPhoto } from './photoStore';
export { type Here, hasJob, isGone, isHere, vehicleOfJob, whoIsOn } from './presence';
export {
  eventsAfter,
  heldJob,
  jobFile,
  type LoadedJob,
  loadJob,
  loadJobAlone,
} from './readJobs';
export { slotHistory } from './slotHistory';
export { surveyedSlots } from './surveyed';
export { newerMaps, takeNewest } from './takeNewest';
