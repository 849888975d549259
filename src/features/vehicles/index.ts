export { ImportBox } from './ImportBox';
