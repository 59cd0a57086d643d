/**
 * Drawings: from the drawing part of a model document and the values of a build to what stands where
 * (`sceneOf`), to flat views with dimension lines (`viewOf`), to an SVG file (`writeSvg`), and to triangles
 * (`meshOf`). All lengths are millimetres. What depends on something open is left out, and the scene says
 * which rows it waits for.
 */
export { sceneKey, sceneOf, type Scene, type Solid } from './scene';
export { extentOf, viewOf, type DimensionLine, type Figure, type Spot, type View } from './views';
export { spaceViewOf } from './space';
export { withRoom } from './room';
export {
  boxOf,
  dimensionPath,
  dimensionText,
  edgeColour,
  letterHeight,
  paintOf,
  paints,
  pathOf,
  sizedView,
  writeSvg,
} from './svg';
export { layersIn } from './layers';
export { meshOf } from './mesh';
