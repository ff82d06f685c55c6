/** Saves what an address answers as a file of this computer. */
export async function download(path: string, body: object): Promise<boolean> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) return false;
    const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file';
    const href = URL.createObjectURL(await response.blob());
    const link = document.createElement('a');
    link.href = href;
    link.download = decodeURIComponent(name);
    link.click();
    URL.revokeObjectURL(href);
    return true;
  } catch {
    return false;
  }
}
