export { ChangeView } from './ChangeView';
export { UndoChange } from './UndoChange';
