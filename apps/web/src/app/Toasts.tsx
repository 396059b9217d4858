import { useEffect, useState } from 'react';
import { later } from '../ui/later';
import { fetchToaster } from '../ui/toast';
import { whenIdle } from '../ui/whenIdle';

const Toaster = later(async () => (await fetchToaster()).Toaster);

/** Where what is said for a while appears; it comes once the page has nothing else to do. */
export const Toasts = () => {
  const [wanted, want] = useState(false);
  useEffect(() => whenIdle(() => want(true)), []);
  return wanted && <Toaster />;
};
