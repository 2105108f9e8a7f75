/** What tools show over the sheet, apart from what is chosen: fetched after the first paint. */
export { drawCrop } from './cropOverlay';
export { drawGradient } from './gradientOverlay';
export { drawNodes } from './nodeOverlay';
export { openPaths } from '../tools/nodeSpots';
