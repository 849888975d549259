/** Vehicles and their maps on the server: read, listed, searched, brought in, learned. */
export { changeVehicle, customerOf, knownOf, recordOf, type VehicleAnswer } from './changeVehicle';
export { copyToSister, type ImportResult, importFile, importIn } from './importMap';
export { type Learned, learnFact, learnIn } from './learnFact';
export {
  chooseVehicles,
  circuitNames,
  countVehicles,
  type KnownVehicle,
  knownVehicles,
  listVehicles,
  recentVehicles,
  VEHICLE_PAGE,
} from './listVehicles';
export { addPattern, addVehicle, addVehicleAlone, setNominalVolts } from './newVehicle';
export { functionsOf, loadVehicle, newestCircuits, type Vehicle, type VehicleMaps } from './readVehicles';
export { type Found, type FoundSlot, searchShop } from './search';
