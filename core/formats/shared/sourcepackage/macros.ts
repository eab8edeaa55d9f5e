/** Parts that hold programs, in both standards: they are neither run nor kept. */
const MACROS = /(?:^|\/)(?:vbaProject[^/]*\.bin|vbaData[^/]*\.xml)$|^(?:Basic|Scripts|Dialogs)\//i;
export const isMacro = (path: string): boolean => MACROS.test(path);
/** What is said where parts with programs were left out. */
export const MACROS_LEFT = {
  slide: null,
  what: "its macros",
  why: "Unitext neither runs nor keeps programs; what they would have done does not happen",
};
