/** The page that stands before all others where there is a password: it needs nothing but itself. */

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

export function signInPage({ next, name, trouble }: { next: string; name: string; trouble?: string }): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Sign in · Insidia</title>
<style>
:root { color-scheme: light dark; --paper: #f5f2e9; --sheet: #fcfaf5; --ink: #1b2120; --ink-2: #444b48; --rule: #b3ac99; --warn: #b3152b; --focus: #1c5fa6; }
@media (prefers-color-scheme: dark) {
  :root { --paper: #171b1b; --sheet: #1f2424; --ink: #ece7da; --ink-2: #b9b6ab; --rule: #5a615e; --warn: #ff8f88; --focus: #8ab8ea; }
}
* { box-sizing: border-box; }
body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: var(--paper); color: var(--ink); font: 15px/1.45 system-ui, sans-serif; }
main { width: min(340px, 92vw); }
h1 { margin: 0 0 2px; font: 500 30px/1.2 Georgia, serif; }
p { margin: 0 0 18px; color: var(--ink-2); font-size: 13px; }
form { display: grid; gap: 12px; padding: 18px; background: var(--sheet); border: 1px solid var(--rule); }
label { display: grid; gap: 3px; font-size: 12px; color: var(--ink-2); }
input, button { height: 32px; padding: 0 8px; font: inherit; color: var(--ink); background: var(--paper); border: 1px solid var(--rule); }
button { margin-top: 4px; background: var(--ink); color: var(--paper); border-color: var(--ink); font-weight: 600; cursor: pointer; }
input:focus-visible, button:focus-visible { outline: 2px solid var(--focus); outline-offset: 1px; }
[role=alert] { margin: 0; color: var(--warn); font-weight: 600; }
</style>
</head>
<body>
<main>
<h1>Insidia</h1>
<p>This Insidia is shared: it asks who you are, so that the history can say who changed what.</p>
<form method="post" action="/sign-in">
${trouble ? `<p role="alert">${escaped(trouble)}</p>` : ''}
<input type="hidden" name="next" value="${escaped(next)}">
<label>Your name<input name="name" value="${escaped(name)}" maxlength="60" autocomplete="name" required ${name ? '' : 'autofocus'}></label>
<label>Password<input name="password" type="password" maxlength="200" autocomplete="current-password" required ${name ? 'autofocus' : ''}></label>
<button>Sign in</button>
</form>
</main>
</body>
</html>
`;
}
