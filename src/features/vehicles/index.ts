export { CopyFromSister } from './CopyFromSister';
export { wasOf } from './fact';
export { ImportBox } from './ImportBox';
export { VehicleChoice } from './VehicleChoice';
