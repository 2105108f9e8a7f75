declare module 'pdfkit' {
  /** Only what the bench uses. */
  export default class PDFDocument {
    constructor(options: { size: [number, number]; compress: boolean });
    on(event: 'data' | 'end', listener: () => void): void;
    moveTo(x: number, y: number): this;
    lineTo(x: number, y: number): this;
    bezierCurveTo(a: number, b: number, c: number, d: number, x: number, y: number): this;
    closePath(): this;
    fill(colour: number[]): this;
    end(): void;
  }
}
