/** Why a font file is refused; the text goes on after the file’s name: “Banner.ttf cannot be used: it is damaged …”. */
export class FontProblem extends Error {}
