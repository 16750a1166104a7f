import { defineAsyncComponent } from 'vue';

/** Charts come with a library of their own: loaded when first shown. */
export const ResidualHistogram = defineAsyncComponent(() => import('./ResidualHistogram.vue'));
export const ScatterPlot = defineAsyncComponent(() => import('./ScatterPlot.vue'));
