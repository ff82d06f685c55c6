/**
 * What runs on the business's own website: it puts the button where the script stands, and opens the checkout over the page when it is
 * pressed. Plain browser code without anything else, kept as text because it leaves the house as it is.
 */
export const overlayScript = (host: string): string => `(() => {
  const script = document.currentScript;
  const host = ${JSON.stringify(host)};
  const offer = script && script.dataset.offer;
  if (!offer || !/^[A-Za-z0-9-]+$/.test(offer)) return;
  const address = new URL(host + '/c/' + offer);
  for (const [name, value] of Object.entries(script.dataset)) {
    const passed = /^pass([A-Z]\\w*)$/.exec(name);
    if (passed) address.searchParams.set('pass_' + passed[1].toLowerCase(), value);
  }
  const link = document.createElement('a');
  link.href = address.href;
  const picture = document.createElement('img');
  picture.src = host + '/b/' + offer;
  picture.alt = script.dataset.label || 'Pay';
  picture.style.border = '0';
  link.append(picture);
  script.after(link);
  let dialog = null;
  let frame = null;
  let finished = false;
  let waiting = false;
  const tell = () => document.dispatchEvent(new CustomEvent('dahlia:paid', { detail: { offer } }));
  const close = () => {
    if (!dialog) return;
    document.documentElement.style.overflow = '';
    link.focus();
    // While the bank is asked in another window the checkout goes on listening, out of sight.
    if (waiting) return dialog.open && dialog.close();
    dialog.remove();
    dialog = null;
    if (finished) tell();
    finished = false;
  };
  const show = () => {
    document.documentElement.style.overflow = 'hidden';
    dialog.showModal();
  };
  link.addEventListener('click', (event) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey || !window.HTMLDialogElement) return;
    event.preventDefault();
    if (dialog) return show();
    const framed = new URL(address);
    framed.searchParams.set('framed', 'yes');
    dialog = document.createElement('dialog');
    dialog.setAttribute('aria-label', picture.alt);
    dialog.style.cssText = 'width:min(1100px,96vw);height:min(860px,94vh);max-width:none;max-height:none;padding:0;border:0;background:#ece5db';
    const shut = document.createElement('button');
    shut.type = 'button';
    shut.textContent = '\\u00d7';
    shut.setAttribute('aria-label', 'Close');
    shut.style.cssText = 'position:absolute;top:8px;right:12px;z-index:1;width:44px;height:44px;border:0;background:none;font-size:26px;line-height:1;color:#241a26;cursor:pointer';
    shut.addEventListener('click', close);
    frame = document.createElement('iframe');
    frame.src = framed.href;
    frame.title = picture.alt;
    frame.allow = 'payment';
    frame.style.cssText = 'width:100%;height:100%;border:0;display:block';
    dialog.append(shut, frame);
    document.body.append(dialog);
    dialog.addEventListener('close', close);
    show();
  });
  window.addEventListener('message', (event) => {
    if (event.origin !== host || !event.data || event.data.from !== 'checkout') return;
    if (!frame || event.source !== frame.contentWindow) return;
    if (event.data.kind === 'waiting') waiting = true;
    if (event.data.kind === 'ready') waiting = false;
    if (event.data.kind === 'paid') {
      waiting = false;
      finished = true;
      if (dialog && !dialog.open) close();
    }
    if (event.data.kind === 'close') close();
  });
})();
`;
