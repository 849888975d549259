export { PanelDrawing } from './PanelDrawing';
export { BoxOpening, PanelBrowser, PanelView } from './PanelView';
export { SlotSearchBox } from './SlotSearchBox';
export { useTurns } from './useTurns';
