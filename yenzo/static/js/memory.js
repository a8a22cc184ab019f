// What this tab or this browser remembers. Browsers may be told to store nothing: then nothing is remembered, no more.

const kept = (storage, act) => {
  try {
    return act(window[storage]);
  } catch {
    return null;
  }
};
const inside = (storage) => ({
  recall: (key) => kept(storage, (store) => JSON.parse(store.getItem(key))),
  remember: (key, value) => kept(storage, (store) => store.setItem(key, JSON.stringify(value))),
  forget: (key) => kept(storage, (store) => store.removeItem(key)),
});
export const tab = inside("sessionStorage"), browser = inside("localStorage");
