/** A circuit as symbols and lines to be laid out and drawn. */
export { planDiagram } from './graph';
export { lettersAt, voltsPlaces } from './labels';
export {
  type Diagram,
  EARTH_SIGN,
  type LaidBox,
  type LaidEdge,
  type LayoutAnswer,
  laidDiagram,
  pathOf,
} from './laid';
export { runStrip, type Strip } from './strip';
export { diagramSvg } from './svg';
export type { Stroke } from './symbols';
