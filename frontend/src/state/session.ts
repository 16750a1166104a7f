import { defineStore } from 'pinia';
import { post, session } from '../api/client';
import type { UserView } from '../api/types';

export const useSession = defineStore('session', {
  state: () => ({ user: null as UserView | null, known: false, theme: (localStorage.getItem('theme') ?? 'paper') as 'paper' | 'night' }),
  actions: {
    async refresh() {
      this.user = (await session()).user;
      this.known = true;
      this.applyTheme();
    },
    async signIn(username: string, password: string) {
      await session();
      await post('/api/login', { username, password });
      await this.refresh();
    },
    async signOut() {
      await post('/api/logout').catch(() => undefined);
      await this.refresh();
    },
    toggleTheme() {
      this.theme = this.theme === 'paper' ? 'night' : 'paper';
      localStorage.setItem('theme', this.theme);
      this.applyTheme();
    },
    applyTheme() {
      document.documentElement.dataset.theme = this.theme;
    },
  },
});
