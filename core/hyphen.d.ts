declare module "hyphen/*" {
  export function hyphenateSync(text: string): string;
}
