/** Where files are sent to, below /api. A module of its own: what only sends needs nothing else of the contract. */
export const UPLOADS = '/uploads';
/** Where it is said that all of a stack is sent and is one document. */
export const FINISH = '/stacks/:id/finish';
