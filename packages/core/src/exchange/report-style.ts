/** How a report looks: the light theme's tokens, on white when printed. The page's own tokens are tested to be the same. */

export const REPORT_TOKENS: Readonly<Record<string, string>> = {
  paper: '#f5f2e9',
  sheet: '#fcfaf5',
  well: '#ebe6d8',
  ink: '#1b2120',
  'ink-2': '#444b48',
  'ink-3': '#5f655f',
  hair: '#d6d0c0',
  rule: '#b3ac99',
  focus: '#1c5fa6',
  band: 'rgb(27 33 32 / 0.075)',
  dist: 'rgb(27 33 32 / 0.17)',
  warn: '#b3152b',
  met: 'var(--ink)',
  miss: 'var(--warn)',
  open: 'var(--ink-3)',
  'band-edge': 'var(--ink-2)',
};

/** The two typefaces of the page, as files of the packages that hold them: embedded, so that a report reads the same anywhere. */
export const REPORT_FONTS = [
  { family: 'Newsreader Variable', file: '@fontsource-variable/newsreader/files/newsreader-latin-wght-normal.woff2' },
  { family: 'Source Sans 3 Variable', file: '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2' },
] as const;

/** @param base64 the bytes of such a file */
export const reportFonts = (base64: (file: string) => string): string =>
  REPORT_FONTS.map(
    ({ family, file }) =>
      `@font-face{font-family:'${family}';font-weight:200 900;src:url(data:font/woff2;base64,${base64(file)}) format('woff2')}`,
  ).join('');

export const REPORT_STYLE = `
:root{${Object.entries(REPORT_TOKENS)
  .map(([name, value]) => `--${name}:${value}`)
  .join(';')}}
*{box-sizing:border-box}
body{margin:0 auto;padding:24px;max-width:1088px;background:var(--paper);color:var(--ink);font:13px/1.4 'Source Sans 3 Variable',system-ui,sans-serif;font-variant-numeric:tabular-nums}
h1{font:500 26px/1.1 'Newsreader Variable',Georgia,serif;margin:0}
h2{font:600 15px/1.3 'Newsreader Variable',Georgia,serif;margin:0 0 6px;border-top:1px solid var(--rule);padding-top:8px}
small{font:400 11px/1.3 'Source Sans 3 Variable',system-ui,sans-serif;color:var(--ink-3)}
header p,footer{color:var(--ink-3);margin:2px 0 12px}
section{margin-top:16px;break-inside:avoid-page}
svg{display:block;width:100%;height:auto}
svg.mark{display:inline-block;width:26px;height:12px;vertical-align:-1px}
ul{margin:4px 0;padding:0;list-style:none}
li{padding:1px 0}
i{color:var(--ink-3)}
code{font-size:11px}
.two{display:grid;grid-template-columns:auto 1fr;gap:24px}
.counts{border-collapse:collapse;align-self:start}
.counts td,.counts th{padding:1px 6px;border-bottom:1px solid var(--hair);text-align:right}
.counts td:first-child{text-align:left}
.figures{display:grid;grid-template-columns:1fr 1fr;gap:12px 16px}
figure{margin:0;break-inside:avoid}
figure ul{font-size:12px;color:var(--ink-2)}
.t12{font-size:12px;fill:var(--ink)}.t3{font-size:11px;fill:var(--ink-3)}.tb{font-size:12px;font-weight:600;fill:var(--ink)}
.halo{paint-order:stroke;stroke:var(--paper);stroke-width:3px}
.axis{stroke:var(--rule)}
@media print{:root{--paper:#fff}body{padding:0;max-width:none}@page{margin:12mm}}
`;
