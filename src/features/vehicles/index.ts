export { AddVehicleFold } from './AddVehicleFold';
export { CopyFromSister } from './CopyFromSister';
export { FindVehicle } from './FindVehicle';
export { wasOf } from './fact';
export { ImportBox } from './ImportBox';
export { usePartFact } from './usePartFact';
export { VehicleChoice } from './VehicleChoice';
export { VoltsChoice } from './VoltsChoice';
