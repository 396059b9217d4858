/** Keeps what is at an address as a file, under a name or the one that it comes with. */
export const download = (address: string, name = ''): void => {
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
};

/** Hands a text to the browser as a file. */
export const downloadText = (name: string, type: string, text: string): void => {
  const address = URL.createObjectURL(new Blob([text], { type }));
  download(address, name);
  URL.revokeObjectURL(address);
};
