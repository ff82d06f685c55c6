import { html } from 'hono/html';
import type { HtmlEscapedString } from 'hono/utils/html';

type Html = HtmlEscapedString | Promise<HtmlEscapedString>;

/** A plain page: the stand-ins look like tools, not like Dahlia, so that nobody takes one for the other. */
export const page = (title: string, body: Html): Html => html`<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>${title}</title>
    <style>
      body { margin: 0 auto; max-width: 880px; padding: 28px 20px 60px; font: 15px/23px ui-monospace, 'DejaVu Sans Mono', monospace; color: #222; background: #f2f4f3; }
      h1 { font-size: 19px; line-height: 26px; margin: 0 0 4px; }
      h2 { font-size: 15px; margin: 30px 0 8px; }
      p { margin: 0 0 12px; max-width: 68ch; }
      table { border-collapse: collapse; width: 100%; }
      th, td { text-align: left; padding: 6px 14px 6px 0; border-bottom: 1px solid #c8cfcc; vertical-align: top; }
      a { color: #14504a; }
      button, input { font: inherit; padding: 6px 12px; border: 1px solid #5b6b67; background: #fff; border-radius: 2px; color: inherit; }
      button { cursor: pointer; }
      form { display: inline-flex; gap: 8px; flex-wrap: wrap; margin: 0 8px 8px 0; }
      iframe { width: 100%; height: 620px; border: 1px solid #c8cfcc; background: #fff; }
      pre { white-space: pre-wrap; border: 1px solid #c8cfcc; background: #fff; padding: 14px; }
      .soft { color: #55625f; }
    </style>
  </head>
  <body>
    ${body}
  </body>
</html>`;
