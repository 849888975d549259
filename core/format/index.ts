/** What files, entries and requests look like, and problems with them in words. */
export type {
  BeginRequest,
  CodeSignInRequest,
  DemoPersonRequest,
  EntryRequest,
  GuestRequest,
  HelperJoinRequest,
  HelperRequest,
  HelperStandsRequest,
  PeopleRequest,
  SelfRequest,
  SignInRequest,
} from './accessSchemas';
export { BOUNDS, LARGEST_INTEGER, NODE_LIMIT, NOMINAL_VOLTS, PART_LIMIT } from './bounds';
export { type ByKind, byKind } from './byKind';
export { dayWords, dueProblem, putOffProblem } from './calendar';
export { BATCH_LIMIT_BYTES, checkBatch, checkEvent } from './checkEvent';
export { checkJob } from './checkJob';
export { checkPanelSet, checkPanelSetText } from './checkPanelSet';
export { checkPlan, checkPlanText } from './checkPlan';
export { checkReadingsText } from './checkReadings';
export type {
  CircuitFile,
  CircuitFunction,
  CircuitNode,
  CircuitPart,
  Condition,
  KeyPositionName,
  PartKind,
  PartOf,
  Place,
} from './circuitSchema';
export { cellText, csvCell } from './csvCell';
export type { KindOfPart, RepairLine } from './entries/repair';
export { fieldWords } from './fieldWords';
export { default as validateBareRequest } from './generated/bareRequest';
export { default as validateBegin } from './generated/begin';
export { default as validateCarryOut } from './generated/carryOut';
export { default as validateCircuitFile } from './generated/circuitFile';
export { default as validateCodeSignIn } from './generated/codeSignIn';
export type { CompiledValidator } from './generated/compiled';
export { default as validateDemoPerson } from './generated/demoPerson';
export { default as validateEntry } from './generated/entry';
export { default as validateFact } from './generated/fact';
export { default as validateGuest } from './generated/guest';
export { default as validateHandRequest } from './generated/handRequest';
export { default as validateHelper } from './generated/helper';
export { default as validateHelperJoin } from './generated/helperJoin';
export { default as validateHelperStands } from './generated/helperStands';
export { default as validateImport } from './generated/importRequest';
export { default as validateNewJob } from './generated/newJob';
export { default as validateNewVehicle } from './generated/newVehicle';
export { default as validatePeople } from './generated/people';
export { default as validatePhotoLine } from './generated/photoLine';
export { default as validateRateRequest } from './generated/rateRequest';
export { default as validateRecipe } from './generated/recipe';
export { default as validateSelf } from './generated/self';
export { default as validateShopManifest } from './generated/shopManifest';
export { default as validateShopSignature } from './generated/shopSignature';
export { default as validateSignIn } from './generated/signIn';
export { default as validateStockRequest } from './generated/stockRequest';
export { default as validateUndo } from './generated/undo';
export { default as validateVehicleChange } from './generated/vehicleChange';
export { default as validateWaitingFrame } from './generated/waitingFrame';
export type { Hand, HandRequest } from './handSchema';
export type {
  BodyOf,
  EventBody,
  EventKind,
  JobEvent,
  JobFile,
} from './jobSchema';
export {
  BATTERY_KINDS,
  BOARD_CHECKS,
  CONTACT_FORMS,
  CURRENT_PHASES,
  FUSE_FAMILIES,
  INSTRUMENT_NAMES,
  type InstrumentName,
  ISOLATION_STEPS,
  JOINTS,
  KEY_STATES,
  OPENED_BY,
  PLAN_FORMAT,
  PROOF_ANSWERS,
  REPAIR_DEEDS,
  ROLES,
  type Role,
  SHOP_FORMAT,
  SLOT_FAMILIES,
  SLOT_FEEDS,
  SLOT_STATES,
  SLOT_TYPES,
  STOCK_PLACES,
  STOCK_SORTS,
  STOCK_UNITS,
  SURVEY_FORMAT,
  WAITING_FORMAT,
  WATCH_SORTS,
  WORKS,
  type Work,
} from './lists';
export type { Panel, PanelSetFile, Slot } from './panelSchema';
export { PHOTO_LIMIT_BYTES, PHOTO_LONGEST_SIDE, type PhotoKind, photoKind, photoProblem } from './photo';
export type { CircuitPatch, PlanEdit, PlanFile, PlanGoal } from './planSchema';
export {
  type Checked,
  FILE_LIMIT_BYTES,
  fail,
  PROBLEM_LIMIT,
  type Problem,
  ProblemList,
  readJson,
  validateWith,
} from './problem';
export type {
  FunctionStateName,
  LampStateName,
  Preconditions,
  Reading,
  ReadingValue,
  SoundName,
  TestRef,
} from './readingsSchema';
export type { ImportRequest, NewJob, NewVehicle, PartFact } from './requestSchemas';
export type { PhotoLine, ShopManifest, ShopSignature } from './shopSchema';
export { isShortCode, SHORT_CODE_WORDS, shortCodeProblem } from './shortCode';
export type { StockItem, StockPlace, StockRequest } from './stockSchema';
export type { SurveyFile } from './surveySchema';
export { ENTRY_VERSION, upgradedEntry } from './upgrade/entries';
export { newestVersion, upgraded } from './upgrade/upgrade';
export { USUAL_HAND } from './usualHand';
export { isUuid, UUID_PATTERN } from './uuid';
export type { VehicleChange, VehicleRecord } from './vehicleSchema';
export type { WaitingFile } from './waitingSchema';
export { escapeXml } from './xml';
