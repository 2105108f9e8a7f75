/** Bytes in memory at most, before they are given to the browser to keep. */
const PIECE = 16 * 2 ** 20;

/** A file that comes piece by piece: the browser holds what is there already, on its disk where it is much. */
export class Gathered {
  private readonly kept: Blob[] = [];
  private pieces: Uint8Array[] = [];
  private waiting = 0;
  size = 0;

  add = (piece: Uint8Array): void => {
    this.pieces.push(piece);
    this.waiting += piece.length;
    this.size += piece.length;
    if (this.waiting >= PIECE) this.keep();
  };

  /** All of it, as a file that is read only where it is asked to be. */
  blob(): Blob {
    this.keep();
    return new Blob(this.kept);
  }

  private keep(): void {
    if (this.pieces.length) this.kept.push(new Blob(this.pieces as BlobPart[]));
    [this.pieces, this.waiting] = [[], 0];
  }
}
