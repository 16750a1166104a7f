import { type Component, defineAsyncComponent } from 'vue';
import Loading from '../frame/Loading.vue';
import NotLoaded from '../frame/NotLoaded.vue';

/** A stage's screens are the file NAME/…Stage.vue of its folder, loaded when it is opened. */
const files = import.meta.glob<{ default: Component }>('./*/*Stage.vue');
const screens = new Map(
  Object.entries(files).map(([path, loader]) => [
    path.split('/')[1]!,
    defineAsyncComponent({ loader, loadingComponent: Loading, errorComponent: NotLoaded }),
  ]),
);

export function screenOf(stage: string): Component {
  return screens.get(stage) ?? screens.get('pending')!;
}
