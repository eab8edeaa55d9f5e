/** Parts with macros, in both standards: they are neither run nor stored. */
const MACROS = /(?:^|\/)(?:vbaProject[^/]*\.bin|vbaData[^/]*\.xml)$|^(?:Basic|Scripts|Dialogs)\//i;
export const isMacro = (path: string): boolean => MACROS.test(path);
/** The report entry for macros that were left out. */
export const MACROS_LEFT = {
  slide: null,
  what: "its macros",
  why: "Unitext neither runs nor keeps programs; what they would have done does not happen",
};
