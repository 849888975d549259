export { PanelDrawing, slotFill } from './PanelDrawing';
export { PanelEditor } from './PanelEditor';
export { BoxOpening, PanelBrowser, PanelView } from './PanelView';
export { PanZoom } from './PanZoom';
export { PrintedBox } from './PrintedBox';
export { SlotSearchBox } from './SlotSearchBox';
export { useTurns } from './useTurns';
