declare module "linebreak" {
  /** A place where a line may (or must) end: the UTF-16 index after it. */
  interface Break {
    position: number;
    required?: boolean;
  }
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): Break | null;
  }
}
