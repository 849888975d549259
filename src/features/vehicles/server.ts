/** Vehicles and their maps on the server: read, listed, searched, brought in, learned. */
export { changeVehicle, customerOf, knownOf, recordOf } from './changeVehicle';
export { copyToSister, importCircuit, importFile, importIn } from './importMap';
export { learnFact, learnIn } from './learnFact';
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
} from './readVehicles';
export { searchShop } from './search';
