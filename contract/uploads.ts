/** Where files are sent to, below /api. A module of its own: what only sends files needs nothing else of the contract. */
export const UPLOADS = '/uploads';
