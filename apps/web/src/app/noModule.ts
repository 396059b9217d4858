/** Stands in for Node's `module` in what runs in Node and in browsers alike. */
export {};
