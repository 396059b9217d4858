/** Day or dusk, remembered in this browser. */
import { create } from 'zustand';

type Theme = 'day' | 'dusk';
const KEY = 'kite-theme';

const put = (theme: Theme): Theme => {
  document.documentElement.dataset.theme = theme;
  return theme;
};

export const useTheme = create<{ theme: Theme; toggle: () => void }>((set, get) => ({
  theme: put(localStorage.getItem(KEY) === 'dusk' ? 'dusk' : 'day'),
  toggle: () => {
    const theme = put(get().theme === 'day' ? 'dusk' : 'day');
    localStorage.setItem(KEY, theme);
    set({ theme });
  },
}));
