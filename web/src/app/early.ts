import { askEarly } from '../data/early-reply.ts';
import { pictureWorker } from '../picture/worker-link.ts';

// Imported before everything else, so that what an opening waits for longest is under way while the page still reads
// its own code: the picture's worker, which needs code and a graphics context, and the project's document.
const [, projectId] = /^\/project\/([0-9a-f-]{36})/.exec(location.pathname) ?? [];
if (projectId) {
  askEarly(projectId);
  pictureWorker();
}
