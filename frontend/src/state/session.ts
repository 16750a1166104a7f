import { defineStore } from 'pinia';
import { get, post, put, session } from '../api/client';
import type { UserView } from '../api/types';

export const useSession = defineStore('session', {
  state: () => ({
    /** How this person likes things shown, by name. */
    preferences: {} as Record<string, unknown>,
    user: null as UserView | null,
    known: false,
    theme: (localStorage.getItem('theme') ?? 'paper') as 'paper' | 'night',
  }),
  actions: {
    async refresh() {
      this.user = (await session()).user;
      this.known = true;
      this.applyTheme();
      this.preferences = this.user ? await get<Record<string, unknown>>('/api/account/preferences').catch(() => ({})) : {};
    },
    async prefer(name: string, value: unknown) {
      this.preferences = { ...this.preferences, [name]: value };
      // A width that could not be kept is not worth a notice; it holds until the page is left.
      await put(`/api/account/preferences/${name}`, value).catch(() => undefined);
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
