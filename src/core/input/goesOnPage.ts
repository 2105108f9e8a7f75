import { isDrawing } from './isDrawing';
import { isAvif, pictureFormat } from './picture/read';

/** Is a file a drawing or a picture, which the bench takes where it is dropped? By its name and first bytes. */
export const goesOnPage = (name: string, bytes: Uint8Array): boolean =>
  pictureFormat(bytes) !== null || isAvif(bytes) || isDrawing(name, bytes);
