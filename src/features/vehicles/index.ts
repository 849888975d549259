export { wasOf } from './fact';
export { ImportBox } from './ImportBox';
