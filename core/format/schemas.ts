/** The published schemas themselves, for whoever prints or compiles them: the build and the command line. A door of its own, so that pages carry none of it. */
export {
  BeginSchema,
  CodeSignInSchema,
  DemoPersonSchema,
  EntrySchema,
  GuestSchema,
  HelperJoinSchema,
  HelperSchema,
  HelperStandsSchema,
  PeopleSchema,
  SelfSchema,
  SignInSchema,
} from './accessSchemas';
export { CircuitFileSchema } from './circuitSchema';
export { HandRequestSchema } from './handSchema';
export { JobEventSchema, JobFileSchema } from './jobSchema';
export { PanelSetFileSchema } from './panelSchema';
export { PlanFileSchema } from './planSchema';
export { ReadingsFileSchema } from './readingsSchema';
export {
  BareRequestSchema,
  CarryOutSchema,
  FactSchema,
  ImportSchema,
  NewJobSchema,
  NewVehicleSchema,
  RateSchema,
  RecipeSchema,
  UndoSchema,
} from './requestSchemas';
export { PhotoLineSchema, ShopManifestSchema, ShopSignatureSchema } from './shopSchema';
export { StockRequestSchema } from './stockSchema';
export { SurveyFileSchema } from './surveySchema';
export { VehicleChangeSchema } from './vehicleSchema';
export { WaitingFileSchema, WaitingFrameSchema } from './waitingSchema';
