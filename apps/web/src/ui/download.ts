/** Keeps what is at an address as a file, under the name that it comes with. */
export const download = (address: string): void => {
  const link = document.createElement('a');
  link.href = address;
  link.download = '';
  link.click();
};
