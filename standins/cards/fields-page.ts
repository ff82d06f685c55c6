import { html } from 'hono/html';

/** The three fields that only the processor sees, as a frame for the merchant's page. */
export const fieldsPage = (origin: string, night: boolean) => html`<!doctype html>
<html lang="en" data-origin="${origin}" class="${night ? 'night' : ''}">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>Card fields</title>
    <style>
      @font-face { font-family: 'Encode Sans'; src: url(/cards/fields.woff2) format('woff2'); font-weight: 100 900; }
      :root { --text: #241a26; --soft: #635463; --edge: #7f7078; --paper: #fffdf9; --line: #ded3c6; --bad: #a93420; --on: #6b2451; }
      .night { --text: #f3eae6; --soft: #b9a9b3; --edge: #8a7a86; --paper: #272029; --line: #41363f; --bad: #f0937f; --on: #e39bc2; color-scheme: dark; }
      * { box-sizing: border-box; }
      body { margin: 0; padding: 3px; background: var(--paper); color: var(--text); font: 15px/22px 'Encode Sans', system-ui, sans-serif; }
      .box { border: 1px solid var(--edge); border-radius: 3px; display: grid; grid-template-columns: 1fr 1fr; }
      label { display: block; padding: 5px 13px 6px; position: relative; min-width: 0; }
      label:first-child { grid-column: 1 / -1; border-bottom: 1px solid var(--line); }
      label:nth-child(2) { border-right: 1px solid var(--line); }
      label span { display: block; font-size: 12px; line-height: 16px; color: var(--soft); }
      input { width: 100%; border: 0; padding: 0; background: none; color: inherit; font: inherit; font-variant-numeric: tabular-nums; outline: 0; height: 24px; }
      label:focus-within { box-shadow: inset 0 0 0 2px var(--on); border-radius: 3px; }
      label.bad { box-shadow: inset 0 0 0 2px var(--bad); border-radius: 3px; }
      #trouble { color: var(--bad); font-size: 13px; line-height: 18px; margin: 6px 0 0; min-height: 18px; }
    </style>
  </head>
  <body>
    <form id="card" autocomplete="on" novalidate>
      <div class="box">
        <label><span>Card number</span><input name="number" inputmode="numeric" autocomplete="cc-number" maxlength="19" aria-describedby="trouble" /></label>
        <label><span>Month / year</span><input name="expiry" inputmode="numeric" autocomplete="cc-exp" maxlength="7" aria-describedby="trouble" /></label>
        <label><span>Security number</span><input name="code" inputmode="numeric" autocomplete="cc-csc" maxlength="3" aria-describedby="trouble" /></label>
      </div>
      <p id="trouble" role="alert"></p>
    </form>
    <script src="/cards/fields.js"></script>
  </body>
</html>`;

/** The frame's own program: formats what is typed, and gives the framing page a token, never a number. */
export const fieldsScript = `'use strict';
const origin = document.documentElement.dataset.origin;
const form = document.getElementById('card');
const trouble = document.getElementById('trouble');
const fields = Array.from(form.querySelectorAll('input'));
const say = (message) => parent.postMessage({ from: 'card-fields', ...message }, origin);
const tidy = {
  number: (text) => text.replace(/\\D/g, '').slice(0, 16).replace(/(.{4})(?=.)/g, '$1 '),
  expiry: (text) => { const d = text.replace(/\\D/g, '').slice(0, 4); return d.length > 2 ? d.slice(0, 2) + ' / ' + d.slice(2) : d; },
  code: (text) => text.replace(/\\D/g, '').slice(0, 3),
};
const full = { number: 19, expiry: 7, code: 3 };
for (const field of fields) {
  field.addEventListener('input', () => {
    field.value = tidy[field.name](field.value);
    field.parentElement.classList.remove('bad');
    trouble.textContent = '';
    say({ kind: 'filled', count: fields.filter((other) => other.value.length === full[other.name]).length });
  });
}
form.addEventListener('submit', (event) => { event.preventDefault(); say({ kind: 'enter' }); });
form.addEventListener('keydown', (event) => { if (event.key === 'Enter') { event.preventDefault(); say({ kind: 'enter' }); } });
window.addEventListener('message', async (event) => {
  if (event.origin !== origin || event.data?.to !== 'card-fields') return;
  if (event.data.kind === 'focus') { fields[0].focus(); return; }
  if (event.data.kind !== 'tokenise') return;
  const typed = Object.fromEntries(fields.map((field) => [field.name, field.value]));
  let result;
  try {
    const response = await fetch('/cards/tokens', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(typed) });
    result = await response.json();
  } catch {
    say({ kind: 'unreachable', id: event.data.id });
    return;
  }
  if (result.token) { say({ kind: 'token', id: event.data.id, token: result.token }); return; }
  const bad = fields.filter((field) => result.troubles[field.name]);
  for (const field of bad) field.parentElement.classList.add('bad');
  trouble.textContent = bad.map((field) => result.troubles[field.name]).join(' ');
  bad[0]?.focus();
  say({ kind: 'incomplete', id: event.data.id });
});
say({ kind: 'ready' });
`;
