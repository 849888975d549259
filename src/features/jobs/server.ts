/** Reading and writing jobs in the database. Every call names the actor, whose shop bounds what is seen. */

export { summarise } from '#core/log';
export {
  appendEvents,
  appendIn,
} from './appendEvents';
export { changesInForce, photosOf } from './changesInForce';
export {
  allFollowUps,
  calendarOfFollowUps,
  dueFollowUps,
  FOLLOW_UP_PAGE,
  feedAddress,
  renewFeed,
  shopOfFeed,
  vehicleFollowUps,
} from './followUps';
export { changeGuests, guestOf, guestsOf } from './guests';
export { openHazards } from './hazards';
export { importJob } from './importJob';
export { jobFileName, jobPdf, jobSheet } from './jobPdf';
export { learnOnJob } from './learnOnJob';
export { countJobs, JOB_PAGE, type JobList, type JobRow, listJobs } from './listJobs';
export { lockedJob } from './lockedJob';
export { beginJob, openJob, openJobIn } from './openJob';
export { PatternPicture } from './PatternPicture';
export { keepPhoto, readPhoto } from './photoStore';
export { hasJob, isGone, isHere, vehicleOfJob } from './presence';
export {
  eventsAfter,
  heldJob,
  jobFile,
  loadJob,
  loadJobAlone,
} from './readJobs';
export { enterRoom } from './room';
export { slotHistory } from './slotHistory';
export { surveyedSlots } from './surveyed';
export { newerMaps, takeNewest } from './takeNewest';
