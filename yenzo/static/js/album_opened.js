// The album is open: the window that it was opened from shows it, and this one goes.
new BroadcastChannel("yenzo-album").postMessage("open");
window.close();
