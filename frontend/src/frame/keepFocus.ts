import { onBeforeUnmount, onMounted } from 'vue';

/**
 * A button that goes away when it is pressed takes the keyboard with it, and the page begins again at its top. Here the nearest
 * part that is still there takes it over, so that the next key goes on where the hand was.
 */
export function keepFocus(): void {
  let path: Element[] = [];

  function remember(event: FocusEvent) {
    path = [];
    for (let e = event.target as Element | null; e; e = e.parentElement) path.push(e);
  }

  function restore() {
    const lost = path[0];
    if (document.activeElement !== document.body || lost === undefined || lost.isConnected) return;
    const place = path.find((e): e is HTMLElement => e.isConnected && e instanceof HTMLElement && e !== document.body);
    if (!place) return;
    if (!place.hasAttribute('tabindex')) {
      place.setAttribute('tabindex', '-1');
      place.style.outline = 'none';
    }
    place.focus({ preventScroll: true });
  }

  const watcher = new MutationObserver(restore);
  onMounted(() => {
    document.addEventListener('focusin', remember);
    watcher.observe(document.body, { childList: true, subtree: true });
  });
  onBeforeUnmount(() => {
    document.removeEventListener('focusin', remember);
    watcher.disconnect();
  });
}
