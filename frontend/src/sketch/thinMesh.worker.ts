import { thinned, type MeshParts } from './thinMesh';

// A page for its own: it hears one mesh and answers with a thinner one.
self.onmessage = (event: MessageEvent<MeshParts>) => self.postMessage(thinned(event.data));
