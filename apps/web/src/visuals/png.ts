/** A picture as a PNG: the shapes with the colours and typefaces of the present theme. */

const TOKENS = [
  'paper',
  'sheet',
  'well',
  'ink',
  'ink-2',
  'ink-3',
  'hair',
  'rule',
  'band',
  'band-edge',
  'dist',
  'met',
  'miss',
  'open',
  'focus',
  'warn',
];
/** Pixels of the file for one of the picture. */
const SHARPNESS = 2;

/** @param picture SVG elements that name the tokens */
export async function pngOf({ svg, width, height }: { svg: string; width: number; height: number }): Promise<Blob> {
  const style = getComputedStyle(document.documentElement);
  const colours = TOKENS.map((name) => `--${name}:${style.getPropertyValue(`--${name}`).trim()}`).join(';');
  const rules = `svg{${colours};font-family:'Source Sans 3',system-ui,sans-serif}.t12{font-size:12px;fill:${style.getPropertyValue('--ink')}}.t3{font-size:11px;fill:${style.getPropertyValue('--ink-3')}}.tb{font-size:12px;font-weight:600;fill:${style.getPropertyValue('--ink')}}`;
  const whole = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><style>${rules}</style>${svg}</svg>`;
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(whole)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * SHARPNESS;
  canvas.height = height * SHARPNESS;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('this browser draws no pictures');
  context.scale(SHARPNESS, SHARPNESS);
  context.drawImage(image, 0, 0);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture could not be written'))), 'image/png'),
  );
}
