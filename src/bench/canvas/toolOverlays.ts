/** What tools show over the sheet, apart from what is chosen: fetched after the first paint. */
export { drawCrop } from './cropOverlay';
export { drawGradient } from './gradientOverlay';
export { drawPins } from './pins';
export { drawPressRemarks } from './pressOverlay';
export { drawThread } from './threadOverlay';
export { drawRubber, drawSelection, drawTextEditing } from './selectionOverlay';
export { drawNodes } from './nodeOverlay';
export { drawThrough } from './throughPage';
export { drawReference } from './referenceOverlay';
export { openPaths } from '../tools/nodeSpots';
