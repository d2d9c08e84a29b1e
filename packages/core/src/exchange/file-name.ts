/** Names of files that every system takes. */

const FORBIDDEN =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u001f\u007f-\u009f\\/:*?"<>|\u202a-\u202e\u2066-\u2069]|[\ud800-\udfff](?<![\ud800-\udbff][\udc00-\udfff])(?![\udc00-\udfff])/g;
/** Devices of one system, whatever stands after a point. */
const DEVICES = /^(con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/i;
const LONGEST = 120;

/**
 * A name as it may be given to a file: what no system takes becomes a dash, points and blanks at the ends go, and what is too
 * long is cut before its ending.
 */
export function fileName(name: string): string {
  const plain = name
    .replace(FORBIDDEN, '-')
    .replace(/^[. ]+|[. ]+$/g, '')
    .replace(DEVICES, '$1-');
  const dot = plain.search(/(\.[a-z]{1,10}){1,2}$/i);
  const [stem, ending] = dot > 0 ? [plain.slice(0, dot), plain.slice(dot)] : [plain, ''];
  const whole = [...stem]
    .slice(0, LONGEST - ending.length)
    .join('')
    .trimEnd();
  return (whole || 'insidia') + ending;
}
