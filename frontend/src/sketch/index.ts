import { defineAsyncComponent } from 'vue';
import Loading from '../frame/Loading.vue';

/** The map and the view in space come with libraries of their own: loaded when first shown. */
export const MapSketch = defineAsyncComponent({ loader: () => import('./MapSketch.vue'), loadingComponent: Loading });
export const Surface3d = defineAsyncComponent({ loader: () => import('./Surface3d.vue'), loadingComponent: Loading });
export const Cloud3d = defineAsyncComponent({ loader: () => import('./Cloud3d.vue'), loadingComponent: Loading });
