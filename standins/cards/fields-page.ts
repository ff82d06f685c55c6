import { html, raw } from 'hono/html';
import { FIELDS_WORDS, type FieldsLanguage, type FieldsWords } from './fields-words';

/** What the fields take: a card, a bank account, or either. */
export const TAKES = ['card', 'account', 'both'] as const;
export type Take = (typeof TAKES)[number];

const choice = (words: FieldsWords) => html`<div class="choice" role="group" aria-label="${words.what}">
        <button type="button" data-way="card" aria-pressed="true">${words.card}</button>
        <button type="button" data-way="account" aria-pressed="false">${words.bank}</button>
      </div>`;

/** The fields that only the processor sees, as a frame for the merchant's page. */
export function fieldsPage(origin: string, night: boolean, take: Take, lang: FieldsLanguage) {
  const words = FIELDS_WORDS[lang];
  return html`<!doctype html>
<html lang="${lang}" data-origin="${origin}" class="${night ? 'night' : ''}">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>${words.title}</title>
    <style>
      @font-face { font-family: 'Encode Sans'; src: url(/cards/fields.woff2) format('woff2'); font-weight: 100 900; }
      :root { --text: #241a26; --soft: #635463; --edge: #7f7078; --paper: #fffdf9; --line: #ded3c6; --bad: #a93420; --on: #6b2451; }
      .night { --text: #f3eae6; --soft: #b9a9b3; --edge: #8a7a86; --paper: #272029; --line: #41363f; --bad: #f0937f; --on: #e39bc2; color-scheme: dark; }
      * { box-sizing: border-box; }
      body { margin: 0; padding: 3px; background: var(--paper); color: var(--text); font: 15px/22px 'Encode Sans', system-ui, sans-serif; }
      /* A slip with three ruled lines, torn at the top: what a line is for stands before it, as on a paper form. */
      .slip { border-top: 2px dashed var(--line); padding-top: 2px; }
      label { display: grid; grid-template-columns: 124px minmax(0, 1fr); align-items: end; min-height: 44px; padding: 0 0 5px; }
      label span { font-size: 14px; line-height: 20px; color: var(--soft); padding-bottom: 3px; }
      input { width: 100%; height: 32px; border: 0; border-bottom: 1.5px dotted var(--edge); border-radius: 0; padding: 4px 8px 2px; background: none; color: inherit; font: inherit; font-size: 17px; font-variant-numeric: tabular-nums; outline: 0; }
      label.short input { width: 108px; }
      input::placeholder { color: var(--soft); opacity: 1; }
      input:focus { background: color-mix(in srgb, var(--on) 7%, var(--paper)); border-bottom: 1.5px solid var(--on); box-shadow: 0 0 0 1.5px var(--on); }
      label.bad input { border-bottom: 1.5px solid var(--bad); box-shadow: 0 0 0 1.5px var(--bad); }
      .choice { display: flex; gap: 18px; padding-bottom: 4px; }
      .choice button { min-height: 30px; padding: 3px 0; border: 0; border-bottom: 2px solid transparent; background: none; color: var(--soft); font: inherit; font-size: 14px; cursor: pointer; }
      .choice button[aria-pressed='true'] { border-color: var(--on); color: var(--text); font-weight: 600; }
      .choice button:focus-visible { outline: 2px solid var(--on); outline-offset: 1px; }
      [hidden] { display: none; }
      #trouble { color: var(--bad); font-size: 13px; line-height: 18px; margin: 5px 0 0; min-height: 18px; }
    </style>
  </head>
  <body>
    <form id="card" autocomplete="on" novalidate>
      ${take === 'both' ? choice(words) : ''}
      <div class="slip" data-way="card" ${take === 'account' ? raw('hidden') : ''}>
        <label><span>${words.number}</span><input name="number" inputmode="numeric" autocomplete="cc-number" maxlength="19" aria-describedby="trouble" /></label>
        <label class="short"><span>${words.expiry}</span><input name="expiry" inputmode="numeric" autocomplete="cc-exp" placeholder="${words.expiryAs}" maxlength="7" aria-describedby="trouble" /></label>
        <label class="short"><span>${words.code}</span><input name="code" inputmode="numeric" autocomplete="cc-csc" maxlength="3" aria-describedby="trouble" /></label>
      </div>
      <div class="slip" data-way="account" ${take === 'account' ? '' : raw('hidden')}>
        <label><span>${words.account}</span><input name="account" inputmode="numeric" autocomplete="off" maxlength="14" aria-describedby="trouble" /></label>
        <label><span>${words.holder}</span><input name="holder" autocomplete="name" maxlength="80" aria-describedby="trouble" /></label>
      </div>
      <p id="trouble" role="alert"></p>
    </form>
    <script src="/cards/fields.js"></script>
  </body>
</html>`;
}

/** The frame's own program: formats what is typed, and gives the framing page a token, never a number. */
export const fieldsScript = `'use strict';
const origin = document.documentElement.dataset.origin;
const form = document.getElementById('card');
const trouble = document.getElementById('trouble');
const slips = Array.from(form.querySelectorAll('.slip'));
const open = () => slips.find((slip) => !slip.hidden);
const inputs = () => Array.from(open().querySelectorAll('input'));
const say = (message) => parent.postMessage({ from: 'card-fields', ...message }, origin);
const tidy = {
  number: (text) => text.replace(/\\D/g, '').slice(0, 16).replace(/(.{4})(?=.)/g, '$1 '),
  expiry: (text) => { const d = text.replace(/\\D/g, '').slice(0, 4); return d.length > 2 ? d.slice(0, 2) + ' / ' + d.slice(2) : d; },
  code: (text) => text.replace(/\\D/g, '').slice(0, 3),
  account: (text) => text.replace(/\\D/g, '').slice(0, 12).replace(/(.{4})(?=.)/g, '$1 '),
  holder: (text) => text,
};
const full = { number: 19, expiry: 7, code: 3, account: 14 };
const isFull = (field) => (full[field.name] ? field.value.length === full[field.name] : field.value.trim() !== '');
for (const button of form.querySelectorAll('.choice button')) {
  button.addEventListener('click', () => {
    for (const slip of slips) slip.hidden = slip.dataset.way !== button.dataset.way;
    for (const one of form.querySelectorAll('.choice button')) one.setAttribute('aria-pressed', String(one === button));
    trouble.textContent = '';
    say({ kind: 'way', way: button.dataset.way });
  });
}
for (const field of form.querySelectorAll('input')) {
  field.addEventListener('input', () => {
    field.value = tidy[field.name](field.value);
    field.parentElement.classList.remove('bad');
    trouble.textContent = '';
    say({ kind: 'filled', count: inputs().filter(isFull).length });
  });
}
form.addEventListener('submit', (event) => { event.preventDefault(); say({ kind: 'enter' }); });
form.addEventListener('keydown', (event) => { if (event.key === 'Enter') { event.preventDefault(); say({ kind: 'enter' }); } });
window.addEventListener('message', async (event) => {
  if (event.origin !== origin || event.data?.to !== 'card-fields') return;
  const fields = inputs();
  if (event.data.kind === 'focus') { fields[0].focus(); return; }
  if (event.data.kind !== 'tokenise') return;
  const typed = { lang: document.documentElement.lang, ...Object.fromEntries(fields.map((field) => [field.name, field.value])) };
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
say({ kind: 'way', way: open().dataset.way });
`;
