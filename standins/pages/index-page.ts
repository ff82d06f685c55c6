import { html } from 'hono/html';
import { PRETEND_ACCOUNTS } from '../cards/pretend-accounts';
import { PRETEND_CARDS } from '../cards/pretend-cards';
import type { MovableClock } from '../clock/movable-clock';
import type { MailStore } from '../mailbox/store';
import type { MessageStore } from '../messages/store';
import { page } from './layout';

const grouped = (number: string): string => number.replace(/(.{4})(?=.)/g, '$1 ');

/** What stands in for the world outside: the pretend cards, the mail, the clock. */
export const indexPage = (store: MailStore, messages: MessageStore, clock: MovableClock) =>
  page(
    'Stand-ins',
    html`<h1>Stand-ins</h1>
      <p class="soft">Simulated outside services for trying Dahlia out. No money moves and no mail leaves this computer.</p>
      <h2>Pretend cards</h2>
      <p>Any month to come, as 04/29, and any three digits on the back.</p>
      <table>
        <tr><th>Number</th><th>Scheme</th><th>What it does</th></tr>
        ${PRETEND_CARDS.map((card) => html`<tr><td>${grouped(card.number)}</td><td>${card.scheme}</td><td>${card.words}</td></tr>`)}
      </table>
      <h2>Pretend bank accounts</h2>
      <table>
        <tr><th>Number</th><th>What becomes of a bank debit</th></tr>
        ${PRETEND_ACCOUNTS.map((account) => html`<tr><td>${grouped(account.number)}</td><td>${account.words}</td></tr>`)}
      </table>
      <h2>Mail</h2>
      <p><a href="/mail">${store.list().length} messages</a></p>
      <h2>Short messages</h2>
      <p><a href="/messages">${messages.list().length} messages</a></p>
      <h2>Bank</h2>
      <p><a href="/bank">Accounts, their books and statements; a place to pay in</a></p>
      <h2>Processor</h2>
      <p><a href="/cards/terms">What it holds back of whom</a></p>
      <p><a href="/cards/disputes">Disputes: ask for a payment back as its holder would, or decide as their bank</a></p>
      <p><a href="/cards/debits">Bank debits: collect one now, or give one back as the payer’s bank would</a></p>
      <h2>Office of identities</h2>
      <p><a href="/identity">Who stands behind a business: checks, and a place to decide them</a></p>
      <h2>Carrier</h2>
      <p><a href="/carrier">Labels that were bought, and where their parcels are</a></p>
      <h2>Sample website</h2>
      <p><a href="/shop">A page on which buttons can be tried</a></p>
      <h2>Clock</h2>
      <p>${new Date(clock.now()).toISOString().slice(0, 16).replace('T', ' ')} UTC${clock.offset ? ', moved' : ', as the real one'}</p>
      ${[1, 7, 30].map(
        (days) =>
          html`<form method="post" action="/clock"><input type="hidden" name="advanceDays" value="${days}" /><button>${days} ${days === 1 ? 'day' : 'days'} on</button></form>`,
      )}
      <form method="post" action="/clock"><input type="hidden" name="real" value="1" /><button>Back to the real time</button></form>
      <form method="post" action="/clock"><input name="set" type="datetime-local" required aria-label="Day and time" /><button>Set</button></form>`,
  );
