/** Vehicles and their maps on the server: read, listed, searched, brought in, learned. */
export { changeVehicle, customerOf, knownOf, recordOf, type VehicleAnswer } from './changeVehicle';
export { copyToSister, type ImportResult, importCircuit, importFile, importIn } from './importMap';
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
export { lockedVehicle } from './lockedVehicle';
export { addPattern, addVehicle, addVehicleAlone, setNominalVolts } from './newVehicle';
export {
  functionsOf,
  loadVehicle,
  newestCircuits,
  newestPanelSet,
  type Vehicle,
  type VehicleMaps,
} from './readVehicles';
export { type Found, type FoundSlot, searchShop } from './search';
