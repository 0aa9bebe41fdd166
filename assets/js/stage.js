// What the page's scripts share, outside Alpine's reactive data: drawings must not be proxied.
export const start = JSON.parse(document.getElementById("start").textContent);
export const stage = { view: null, tower: null, section: null, store: null };
