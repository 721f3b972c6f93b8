// A library asks for its window as it is loaded; a service worker has none.
Object.assign(self, { window: self });
